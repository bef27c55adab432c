/** Whether an error says that the libSQL server was not there to take a write. */
export const isAway = (error: unknown): boolean => {
  for (let e = error; e instanceof Error; e = e.cause)
    if (/^WriteDelegation\(.*(Unavailable|connect)/s.test(e.message)) return true
  return false
}
