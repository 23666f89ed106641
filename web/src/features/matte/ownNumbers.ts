import type { ParameterSpec } from '@/api/declared'

const SHARE = { channels: null, unit: 'share', min: 0, decimals: 1, nudge: 0.01, suffix: '%', shown_times: 100 }

/** Numbers that every contributor has, whatever its kind. */
export const OWN = {
  strength: { ...SHARE, name: 'strength', label: 'strength', max: 1, neutral: 1, decimals: 0, about: 'How much of it counts.' },
  softness: { ...SHARE, name: 'softness', label: 'softness', max: 0.2, neutral: 0, nudge: 0.001, decimals: 2, about: "What softens it, as a share of the picture's height." },
} satisfies Record<string, ParameterSpec>
