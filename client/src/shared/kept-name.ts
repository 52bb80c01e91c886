/** Under which name on the device lies who was signed in. */
export const SESSION = 'session'
