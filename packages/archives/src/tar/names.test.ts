import { describe, expect, it } from 'vitest'
import { shownName } from './names.ts'
import { tarHeader, tarPadding } from './write.ts'

import { bytesOf, file, listed } from '../testing/tars.ts'

describe('names', () => {
  it('are compared as what they come to, whole, and both twins are refused', async () => {
    expect(await listed(file('a'), file('./a'), file('d//b'), file('d/b'), file('c'))).toEqual([
      'a: duplicate',
      './a: duplicate',
      'd//b: duplicate',
      'd/b: duplicate',
      'c: good',
    ])
    expect(await listed(file('maße'), file('MASSE'), file('ﬁn'), file('FIN'))).toEqual([
      'maße: case-twin',
      'MASSE: case-twin',
      'ﬁn: case-twin',
      'FIN: case-twin',
    ])
    expect(await listed(file('e\u0301'), file('\u00c9'))).toEqual([
      'e\u0301: case-twin',
      '\u00c9: case-twin',
    ])
  })

  it('of folders and links count, and a folder that is told twice does not', async () => {
    const folder = (name: string) => tarHeader(name, 0, '5')
    expect(await listed(folder('./'), folder('d/'), folder('d/'), file('d/a'))).toEqual([
      'd/a: good',
    ])
    expect(await listed(folder('D/'), folder('d/'), file('x'))).toEqual([
      'D/: case-twin',
      'd/: case-twin',
      'x: good',
    ])
    expect(await listed(file('d'), file('d/a'))).toEqual(['d: file-and-folder', 'd/a: good'])
    expect(await listed(file('d'), tarHeader('D', 0, '2'))).toEqual(['d: case-twin', 'D: link'])
  })

  it('of folders that climb out, are absolute or carry bytes are refused', async () => {
    expect(
      await listed(tarHeader('../up/', 0, '5'), tarHeader('/top/', 0, '5'), file('hidden/', 3)),
    ).toEqual(['../up/: climbs-out', '/top/: absolute-path', 'hidden/: folder-with-bytes'])
  })

  it('in an old encoding stay apart', async () => {
    const named = (...high: readonly number[]) => {
      const block = tarHeader('x'.repeat(high.length + 1), 3)
      const old = [...block.subarray(148, 156)].map((byte) => String.fromCharCode(byte)).join('')
      high.forEach((byte, at) => (block[at] = byte))
      const more = high.reduce((sum, byte) => sum + byte - 0x78, 0)
      const sum = Number.parseInt(old, 8) + more
      block.set(Buffer.from(`${sum.toString(8).padStart(6, '0')}\0 `), 148)
      return Buffer.concat([block, bytesOf(3), tarPadding(3)])
    }
    expect(await listed(named(0xe4), named(0xf6))).toEqual(['%e4x: good', '%f6x: good'])
  })

  it('are shown so that they forge no line', () => {
    expect(shownName('a\u001b[2J\nb\u202ec')).toBe('a\\u001b[2J\\u000ab\\u202ec')
    expect(shownName('maße.img')).toBe('maße.img')
  })
})

describe('an entry refused', () => {
  it('is listed with its rule, and the others stay', async () => {
    expect(
      await listed(
        tarHeader('../out', 0),
        tarHeader('a/../../out', 0),
        tarHeader('/etc/x', 0),
        tarHeader('link', 0, '2'),
        tarHeader('hard', 0, '1'),
        tarHeader('null', 0, '3'),
        tarHeader('good', 0),
        tarHeader('good', 0),
        tarHeader('GOOD', 0),
        tarHeader('folder/', 0, '5'),
        tarHeader('stays', 0),
      ),
    ).toEqual([
      '../out: climbs-out',
      'a/../../out: climbs-out',
      '/etc/x: absolute-path',
      'link: link',
      'hard: link',
      'null: device',
      'good: case-twin',
      'good: case-twin',
      'GOOD: case-twin',
      'stays: good',
    ])
  })
})
