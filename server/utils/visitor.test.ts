import * as fc from 'fast-check'
import { plainAddress, proxiesIn, visitorFrom } from './visitor'
import type { Told } from './visitor'

const told = (more: Partial<Told>): Told => ({
  socket: '10.0.0.2',
  encrypted: false,
  host: '127.0.0.1:4747',
  forwardedFor: '',
  forwardedProto: '',
  forwardedHost: '',
  ...more,
})
const trusted = proxiesIn('10.0.0.2, 10.1.0.0/16 fd00::7')

test('what a list of proxies may have', () => {
  expect(proxiesIn('')).toMatchObject({ count: 0, wrong: [] })
  expect(trusted).toMatchObject({ count: 3, wrong: [] })
  expect(proxiesIn('lab.example, 10.0.0.0/33, 1.2.3, fd00::/129, [fd00::8]').wrong).toEqual([
    'lab.example',
    '10.0.0.0/33',
    '1.2.3',
    'fd00::/129',
  ])
})

test.each([
  ['::ffff:10.0.0.2', '10.0.0.2'], [' 10.0.0.2 ', '10.0.0.2'], ['10.0.0.2:5512', '10.0.0.2'], ['[fd00::7]:80', 'fd00::7'], ['fd00::7', 'fd00::7'],
])('%s is %s', (given, address) => expect(plainAddress(given)).toBe(address)) // prettier-ignore

test('of a proxy that is listed the headers are believed', () => {
  const headers = { forwardedFor: '203.0.113.9', forwardedProto: 'https', forwardedHost: 'Lab.example' }
  const through = { address: '203.0.113.9', secure: true, hosts: ['127.0.0.1:4747', 'lab.example'] }
  expect(visitorFrom(told(headers), trusted)).toEqual(through)
  expect(visitorFrom(told({ ...headers, socket: '::ffff:10.1.2.3' }), trusted)).toEqual(through)
  expect(visitorFrom(told({ ...headers, socket: 'fd00::7' }), trusted)).toEqual(through)
  // Several proxies on the way; what stands before the stranger was written by the stranger.
  const far = told({ forwardedFor: '1.1.1.1, 203.0.113.9, 10.1.5.5, 10.0.0.2', forwardedProto: 'http, https' })
  expect(visitorFrom(far, trusted)).toMatchObject({ address: '203.0.113.9', secure: true })
  expect(visitorFrom(told({}), trusted)).toEqual({ address: '10.0.0.2', secure: false, hosts: ['127.0.0.1:4747'] })
})

test('of anybody else nothing is believed, whatever the headers say', () => {
  fc.assert(
    fc.property(fc.ipV4(), fc.string(), fc.string(), fc.string(), (socket, forwardedFor, forwardedProto, host) => {
      fc.pre(socket !== '10.0.0.2' && !socket.startsWith('10.1.'))
      const asked = told({ socket, forwardedFor, forwardedProto, forwardedHost: host })
      expect(visitorFrom(asked, trusted)).toEqual({ address: socket, secure: false, hosts: ['127.0.0.1:4747'] })
    }),
  )
})
