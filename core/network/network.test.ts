import fc from 'fast-check'
import { expect, test } from 'vitest'
import { isPublicAddress, networkOf } from '.'

test.each([
  ...['127.0.0.1', '127.255.255.254', '0.0.0.0', '10.0.0.1', '172.16.0.1', '172.31.255.255'],
  ...['192.168.1.1', '169.254.169.254', '100.64.0.1', '192.0.2.1', '198.18.0.1', '224.0.0.1'],
  ...['240.0.0.1', '255.255.255.255', '::1', '::', '::ffff:127.0.0.1', '::ffff:8.8.8.8'],
  ...['::127.0.0.1', '64:ff9b::7f00:1', '2002:7f00:1::', '2001::1', 'fe80::1', 'fe80::1%eth0'],
  ...['fc00::1', 'fd12:3456::1', 'ff02::1', '2001:db8::1', 'localhost', '', '1', 'nonsense'],
])('%s is not asked', (address) => expect(isPublicAddress(address)).toBe(false))

test.each(['8.8.8.8', '203.0.114.1', '172.32.0.1', '2606:4700::1111', '2a00:1450:4001::8a'])(
  '%s is on the public internet',
  (address) => expect(isPublicAddress(address)).toBe(true),
)

test('no form in which IPv6 carries an IPv4 address is public', () => {
  fc.assert(
    fc.property(fc.ipV4(), (v4) => {
      const hex = v4
        .split('.')
        .map((part) => Number(part).toString(16).padStart(2, '0'))
        .join('')
      const [high, low] = [hex.slice(0, 4), hex.slice(4)]
      for (const form of [
        `::ffff:${v4}`,
        `::${high}:${low}`,
        `64:ff9b::${high}:${low}`,
        `2002:${high}:${low}::1`,
      ])
        expect(isPublicAddress(form), form).toBe(false)
    }),
  )
})

test.each([
  ['203.0.113.9', '203.0.113'],
  ['::ffff:203.0.113.77', '203.0.113'],
  ['2001:db8:1:2:aaaa::1', '32.1.13.184.0.1.0.2'],
  ['2001:db8:1:2:bbbb::2', '32.1.13.184.0.1.0.2'],
  ['not one', 'unknown'],
])('%s is in the network %s', (address, network) => expect(networkOf(address)).toBe(network))
