/** "1 shot", "12 shots". */
export const counted = (count: number, one: string) => `${count} ${one}${Math.abs(count) === 1 ? '' : 's'}`
