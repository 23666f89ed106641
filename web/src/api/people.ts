/** What somebody may do; each may do what those before it may. */
export type Role = 'look' | 'grade' | 'deliver' | 'administer'

export interface Person {
  id: number
  name: string
  initials: string
  role: Role
  /** Nobody can sign in with it any more. */
  ended: boolean
}

export interface Here {
  /** Whether anybody has to sign in. */
  asked: boolean
  person: Person | null
}

/** A browser somebody is signed in with. */
export interface SignIn {
  id: number
  person: number
  name: string
  address: string
  browser: string
  since: string
  seen: string
  /** This one. */
  here: boolean
}

/** A window that is open somewhere, and where it is. */
export interface PresentWindow {
  window: string
  person: number | null
  name: string | null
  initials: string | null
  room: string
  cut: number | null
  shot: number | null
  /** Whose step is open there. */
  recipe: number | null
  /** A hand is moving something of it just now. */
  touching: boolean
}
