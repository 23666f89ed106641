/** Record frames as a clock shows them; non-drop, for reading along only. */
export function clock(frame: number, rate: number): string {
  const whole = Math.round(rate)
  const pad = (n: number) => String(Math.floor(n)).padStart(2, '0')
  const seconds = Math.floor(frame / whole)
  return `${pad(seconds / 3600)}:${pad((seconds / 60) % 60)}:${pad(seconds % 60)}:${pad(frame % whole)}`
}
