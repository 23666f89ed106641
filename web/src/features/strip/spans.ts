import type { RecipeDocument, SpanDocument } from '@/api/recipe'

/** Spans of a recipe with something changed; none of these writes to what it is given. */

/** What a hand is on of a span: all of it, a mark, or the end of a fade before or after one. */
export type Grip = 'whole' | 'start' | 'finish' | 'in-before' | 'in-after' | 'out-before' | 'out-after'

export function withSpan(document: RecipeDocument, id: string, change: Partial<SpanDocument>): RecipeDocument {
  return { ...document, spans: (document.spans ?? []).map((span) => (span.id === id ? { ...span, ...change } : span)) }
}

/** With one more, in which a step takes part. */
export function withNewSpan(document: RecipeDocument, span: SpanDocument, step: string | null): RecipeDocument {
  const steps = document.steps.map((one) => (one.id === step ? { ...one, spans: [...(one.spans ?? []), span.id] } : one))
  return { ...document, steps, spans: [...(document.spans ?? []), span] }
}

/** Without one: no step takes part in it any more. */
export function withoutSpan(document: RecipeDocument, id: string): RecipeDocument {
  const steps = document.steps.map((step) => (step.spans?.includes(id) ? { ...step, spans: left(step.spans, id) } : step))
  const spans = (document.spans ?? []).filter((span) => span.id !== id)
  return { ...document, steps, spans: spans.length ? spans : undefined }
}

/** With a step that takes part in a span, or not any more. */
export function withPart(document: RecipeDocument, step: string, id: string, part: boolean): RecipeDocument {
  const steps = document.steps.map((one) => (one.id === step ? { ...one, spans: part ? [...(one.spans ?? []).filter((other) => other !== id), id] : left(one.spans ?? [], id) } : one))
  return { ...document, steps }
}

function left(ids: string[], id: string): string[] | undefined {
  const others = ids.filter((one) => one !== id)
  return others.length ? others : undefined
}

/** As a hand has pulled it by so many frames, held to what a span can be. */
export function pulled(span: SpanDocument, grip: Grip, by: number): SpanDocument {
  const {
    start,
    finish,
    fade_in: [before, after],
    fade_out: [early, late],
  } = span
  const fade = (value: number) => Math.max(0, value)
  switch (grip) {
    case 'whole':
      return { ...span, start: start + by, finish: finish + by }
    case 'start':
      return { ...span, start: Math.min(start + by, finish) }
    case 'finish':
      return { ...span, finish: Math.max(finish + by, start) }
    case 'in-before':
      return { ...span, fade_in: [fade(before - by), after] }
    case 'in-after':
      return { ...span, fade_in: [before, Math.min(fade(after + by), finish - start)] }
    case 'out-before':
      return { ...span, fade_out: [Math.min(fade(early - by), finish - start), late] }
    case 'out-after':
      return { ...span, fade_out: [early, fade(late + by)] }
  }
}

/** The frame that a grip is at. */
export function placeOf(span: SpanDocument, grip: Grip): number {
  const { start, finish, fade_in, fade_out } = span
  return { whole: start, start, finish, 'in-before': start - fade_in[0], 'in-after': start + fade_in[1], 'out-before': finish - fade_out[0], 'out-after': finish + fade_out[1] }[grip]
}

/** Its outline for a drawing: across by frames, up from 0 to 1. */
export function outlineOf(span: SpanDocument, across: (frame: number) => number, up: (share: number) => number): string {
  const eased = (share: number) => (span.curve === 'straight' ? share : (1 - Math.cos(Math.PI * share)) / 2)
  const ramp = (from: number, to: number, rising: boolean) => (to > from ? Array.from({ length: 9 }, (_, at) => at / 8).map((at) => ({ x: from + (to - from) * at, y: eased(rising ? at : 1 - at) })) : [{ x: from, y: rising ? 1 : 0 }])
  // the last frame is in it to its end
  const [rising, sinking, gone] = [placeOf(span, 'in-before'), placeOf(span, 'out-before') + 1, placeOf(span, 'out-after') + 1]
  const points = [{ x: rising, y: 0 }, ...ramp(rising, placeOf(span, 'in-after'), true), { x: sinking, y: 1 }, ...ramp(sinking, gone, false)]
  return `M${points.map(({ x, y }) => `${across(x).toFixed(2)} ${up(y).toFixed(2)}`).join('L')}Z`
}
