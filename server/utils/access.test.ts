import { Gate, hostName, isLoopback, listenHost, servedHosts, SESSION_LASTS } from './access'

jest.setTimeout(60_000)

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

describe('the gate', () => {
  let now = 1_000_000
  const gate = () => new Gate('correct horse', () => now)

  test('lets in who knows the passphrase, until the session ends', async () => {
    const door = gate()
    expect(await door.signIn('wrong', 'a')).toEqual({ status: 'wrong' })
    const entered = await door.signIn('correct horse', 'a')
    if (entered.status !== 'in') throw new Error('not let in')
    expect([door.knows(entered.token), door.knows('forged'), door.knows(undefined)]).toEqual([true, false, false])
    now += SESSION_LASTS + 1
    expect(door.knows(entered.token)).toBe(false)
  })
  test('a session that is signed out is over', async () => {
    const door = gate()
    const entered = await door.signIn('correct horse', 'a')
    if (entered.status !== 'in') throw new Error('not let in')
    door.signOut(entered.token)
    expect(door.knows(entered.token)).toBe(false)
  })
  test('attempts at guessing wait longer and longer, and no one slips through at the same time', async () => {
    const door = gate()
    for (let k = 0; k < 5; k += 1) expect((await door.signIn(`guess ${k}`, 'a')).status).toBe('wrong')
    expect(await door.signIn('correct horse', 'a')).toEqual({ status: 'wait', seconds: 2 })
    // Another address is not held up by it.
    expect((await door.signIn('correct horse', 'b')).status).toBe('in')
    now += 2_001
    expect((await door.signIn('guess again', 'a')).status).toBe('wrong')
    expect(await door.signIn('correct horse', 'a')).toEqual({ status: 'wait', seconds: 4 })
    now += 60_001
    const many = await Promise.all(Array.from({ length: 20 }, (_, k) => door.signIn(`at once ${k}`, 'c')))
    expect(many.filter((m) => m.status === 'wait').length).toBeGreaterThanOrEqual(15)
  })
  test('many addresses together are held up, too', async () => {
    const door = gate()
    const many = await Promise.all(Array.from({ length: 80 }, (_, k) => door.signIn('guess', `address ${k}`)))
    expect(many.filter((m) => m.status === 'wrong')).toHaveLength(60)
  })
})
