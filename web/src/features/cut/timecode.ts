import type { Shot } from '@/api/cut'

/**
 * Frames since midnight as a clock shows them (SMPTE ST 12-1). Drop frame leaves out the first
 * two numbers (four at 60) of every minute but each tenth; a semicolon says so.
 */
export function clock(frame: number, rate: number, drop = false): string {
  const whole = Math.ceil(rate - 1e-6)
  const pad = (n: number) => String(Math.floor(n)).padStart(2, '0')
  const count = drop ? frame + leftOut(frame, whole) : frame
  const seconds = Math.floor(count / whole)
  return `${pad((seconds / 3600) % 24)}:${pad((seconds / 60) % 60)}:${pad(seconds % 60)}${drop ? ';' : ':'}${pad(count % whole)}`
}

/** Numbers left out up to a frame. */
function leftOut(frame: number, whole: number): number {
  const lost = whole / 15
  const ten = 600 * whole - 9 * lost
  const within = frame % ten
  const minutes = within < 60 * whole ? 0 : Math.floor((within - 60 * whole) / (60 * whole - lost)) + 1
  return (Math.floor(frame / ten) * 9 + minutes) * lost
}

/** Frames a second of a rate as the server writes it. */
export function rateOf(text: string): number {
  const [over, under] = text.split('/').map(Number)
  return (over ?? 24) / (under ?? 1)
}

const NEARLY = 1e-6 // as in Mordant::Cut::Timeline

/** The frame of its clip that a shot shows at a record frame. */
export function sourceAt(shot: Shot, frame: number): number {
  const gone = frame - shot.record_in
  return shot.source_in + (shot.speed === 1 ? gone : Math.floor(shot.phase + gone * shot.speed + NEARLY))
}

/** The source's own timecode at a record frame of a shot. */
export function sourceClock(shot: Shot, frame: number, projectRate: number): string {
  const { clip } = shot
  const rate = rateOf(clip.rate)
  const at = sourceAt(shot, frame)
  const own = clip.pace === 'time' ? Math.floor(((at + 0.5) * rate) / projectRate) : at
  return clock(clip.start_frames + own, rate, clip.drop)
}
