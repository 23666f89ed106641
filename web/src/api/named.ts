export interface Named {
  id: string
  label: string
}
