import { hostName, isLoopback, listenHost, servedHosts } from './access'

describe('where the server listens', () => {
  test('on this machine alone unless it is told otherwise', () => {
    expect(listenHost({})).toBe('127.0.0.1')
    expect(listenHost({ HOST: ' ' })).toBe('127.0.0.1')
    expect(listenHost({ HOST: '0.0.0.0' })).toBe('0.0.0.0')
    expect(listenHost({ HOST: '[::1]' })).toBe('::1')
    expect(listenHost({ NITRO_HOST: '::1', HOST: '0.0.0.0' })).toBe('::1')
  })
  test.each([
    ['127.0.0.1', true], ['127.9.9.9', true], ['localhost', true], ['::1', true],
    ['0.0.0.0', false], ['::', false], ['192.168.1.5', false], ['127.0.0.1.example', false], ['mylocalhost', false],
  ] as const)('%s is loopback: %s', (host, loopback) => expect(isLoopback(host)).toBe(loopback)) // prettier-ignore
  test('hosts it answers for', () => {
    expect([...servedHosts({})].sort()).toEqual(['127.0.0.1', '[::1]', 'localhost'])
    expect(servedHosts({ HOST: 'fd00::7' }).has('[fd00::7]')).toBe(true)
    const told = servedHosts({ HOST: '0.0.0.0', ORNATE_PHASOR_ADDRESSES: 'Lab.example:8080, https://desk.example/' })
    expect([told.has('lab.example'), told.has('desk.example'), told.has('elsewhere.example'), told.has('')]).toEqual([
      true,
      true,
      false,
      false,
    ])
  })
  test.each([
    ['localhost:4747', 'localhost'], ['[::1]:4747', '[::1]'], ['[::1]', '[::1]'], ['LAB.example', 'lab.example'], ['', ''],
  ] as const)('%s names %s', (header, name) => expect(hostName(header)).toBe(name)) // prettier-ignore
})
