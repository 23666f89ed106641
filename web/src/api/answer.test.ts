import { describe, expect, it } from 'vitest'
import { unpack } from './answer'

function pack(header: object, parts: number[][]): ArrayBuffer {
  const text = new TextEncoder().encode(JSON.stringify(header))
  const bytes = new Uint8Array([0, 0, 0, 0, ...text, ...parts.flat()])
  new DataView(bytes.buffer).setUint32(0, text.length, true)
  return bytes.buffer
}

describe('unpack', () => {
  it('finds every part where the header says it is', () => {
    const parts = [
      { name: 'picture', length: 3 },
      { name: 'luma', length: 2 },
    ]
    const answer = unpack(
      pack({ frame: 7, parts }, [
        [1, 2, 3],
        [9, 8],
      ]),
    )
    expect(answer.header.frame).toBe(7)
    expect([...(answer.parts.picture ?? [])]).toEqual([1, 2, 3])
    expect([...(answer.parts.luma ?? [])]).toEqual([9, 8])
  })

  it('refuses an answer that is cut short', () => {
    expect(() => unpack(pack({ parts: [{ name: 'picture', length: 4 }] }, [[1]]))).toThrow(RangeError)
  })
})
