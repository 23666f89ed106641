/** What a control of a surface has sent; MIDI 1.0, channel voice messages. */
export interface ControlMessage {
  /** "cc 1.21": controller 21 on channel 1; "note 1.36": a pad or key. */
  control: string
  /** 0..127 of a controller; for a note whether it went down. */
  value: number
}

const CONTROL_CHANGE = 0xb0
const NOTE_ON = 0x90
const NOTE_OFF = 0x80

/** @returns null for messages that are neither a controller nor a note */
export function parseMessage(data: Uint8Array | number[]): ControlMessage | null {
  const [status = 0, number = 0, value = 0] = data
  const channel = (status & 0x0f) + 1
  const kind = status & 0xf0
  if (kind === CONTROL_CHANGE) return { control: `cc ${channel}.${number}`, value }
  if (kind === NOTE_ON || kind === NOTE_OFF) return { control: `note ${channel}.${number}`, value: kind === NOTE_ON && value > 0 ? 1 : 0 }
  return null
}

/** How a controller tells movement: by where it stands, or by steps it has turned. */
export type Movement = 'stands' | 'turns'

/**
 * Steps a controller has moved: from where it stood before, or as it says itself
 * (two's complement of seven bits: 1 is one on, 127 one back).
 */
export function stepsOf(movement: Movement, value: number, before: number | undefined): number {
  if (movement === 'turns') return value < 64 ? value : value - 128
  return before === undefined ? 0 : value - before
}
