import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import type { Output, OutputSheet } from '@/api/delivery'
import { installBrowser, installServer, type Call } from '@/test/browser'
import { leftOf, speedOf } from './speed'
import { useSheets } from './useSheets'

let calls: Call[]
beforeEach(() => {
  installBrowser()
  calls = installServer()
})
afterEach(() => vi.unstubAllGlobals())

const output = (change: Partial<Output>): Output => ({
  id: 1,
  order: 1,
  shot: null,
  kind: 'h264',
  label: '',
  statement: '',
  path: '',
  status: 'running',
  stage: 'frames',
  frames: 480,
  done: 120,
  message: null,
  cancelling: false,
  seconds: 30,
  started: '2026-01-01T00:00:00.000Z',
  passed: null,
  notices: null,
  ...change,
})

describe('the pace of an output', () => {
  it('is told once there is one', () => {
    const now = Date.parse('2026-01-01T00:00:30.000Z')
    expect([speedOf(output({}), now), leftOf(output({}), now)]).toEqual([4, '2 min left'])
    expect(leftOf(output({ done: 440 }), now)).toBe('3 s left')
    expect(leftOf(output({ frames: 100_000 }), now)).toBe('6.9 h left')
    expect([speedOf(output({ done: 0 }), now), leftOf(output({ status: 'waiting' }), now), speedOf(output({ started: null }), now)]).toEqual([null, null, null])
  })
})

describe('the outputs of an order', () => {
  it('are looked at by the server whenever they change, and say what is refused', async () => {
    const scope = effectScope()
    const sheets = scope.run(() => useSheets(ref('5'), ref(null), ref(['television'])))!
    await vi.waitFor(() => expect(calls).toHaveLength(1), 5000)
    expect(calls[0]).toMatchObject({ path: '/cuts/5/orders/look', body: { outputs: [{ format: 'h264', target: 'television' }], shots: null } })
    calls[0]?.answer(200, [{ statement: 'BT.709', warnings: [] }])
    await vi.waitFor(() => expect(sheets.looks.value[0]?.statement).toBe('BT.709'), 5000)
    sheets.change(0, { width: 3 })
    await vi.waitFor(() => expect(calls).toHaveLength(2), 5000)
    calls[1]?.answer(422, { error: 'output.width: expected 16 to 8192 pixels' })
    await vi.waitFor(() => expect(sheets.refusal.value).toMatch(/output.width/), 5000)
    scope.stop()
  })

  it('begin as a preset has them, and are added to and taken out', () => {
    const scope = effectScope()
    const sheets = scope.run(() => useSheets(ref(undefined), ref(null), ref([])))!
    sheets.take({ id: 'x', label: 'X', about: '', template: '{cut}', outputs: [{ format: 'exr-half', target: 'aces2065-1' }] })
    sheets.add()
    sheets.change(1, { format: 'dpx-10' })
    expect([sheets.template.value, sheets.sheets.value.map((one) => one.format)]).toEqual(['{cut}', ['exr-half', 'dpx-10']])
    sheets.remove(0)
    expect(sheets.sheets.value).toHaveLength(1)
    scope.stop()
  })

  it('are made for the leading target of a project that does not have theirs', async () => {
    const scope = effectScope()
    const targets = ref<string[]>([])
    const sheets = scope.run(() => useSheets(ref('5'), ref(null), targets))!
    sheets.take({
      id: 'x',
      label: 'X',
      about: '',
      template: '{cut}',
      outputs: [
        { format: 'h264', target: 'cinema' },
        { format: 'h264', target: 'sdr' },
        { format: 'exr-half', target: 'acescg' },
      ],
    })
    targets.value = ['hdr', 'sdr']
    await vi.waitFor(() => expect(calls).toHaveLength(1), 5000)
    expect((calls[0]?.body['outputs'] as OutputSheet[]).map(({ target }) => target)).toEqual(['hdr', 'sdr', 'acescg'])
    scope.stop()
  })
})
