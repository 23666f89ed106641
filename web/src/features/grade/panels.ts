import type { Component } from 'vue'
import StepPanel from './StepPanel.vue'

/** Panels made by hand say of which kind of step they are; a new one is a file whose name ends so. */
const made = import.meta.glob<{ default: Component; kind?: string }>('./*Panel.vue', { eager: true })
const byKind = new Map(Object.values(made).flatMap((panel) => (panel.kind ? [[panel.kind, panel.default] as const] : [])))

/** The controls of a kind of step: made by hand for the main ones, from its declaration for the rest. */
export const panelOf = (kind: string): Component => byKind.get(kind) ?? StepPanel
