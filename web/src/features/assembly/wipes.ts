/** Patterns of wipes by number (SMPTE ST 258), as the core draws them. */
export const WIPES: [number, string][] = [
  [1, 'left to right'],
  [2, 'top to bottom'],
  [3, 'from the top left corner'],
  [4, 'from the top right corner'],
  [5, 'from the bottom right corner'],
  [6, 'from the bottom left corner'],
  [21, 'doors open left and right'],
  [22, 'doors open up and down'],
  [41, 'diagonal from the top left'],
  [42, 'diagonal from the top right'],
  [101, 'rectangle'],
  [102, 'diamond'],
  [119, 'ellipse'],
  [201, "clock's hand from twelve"],
  [202, "clock's hand from three"],
]
