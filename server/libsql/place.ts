/** A libSQL server that keeps the data, and what opens it. */
export interface LibsqlPlace {
  url: string
  token: string | undefined
}

/**
 * Where the data are kept by a libSQL server, by the settings of the environment; null: in a file of ours.
 * @throws Error in one sentence for an address that is none, and for settings that are of a file of ours
 */
export function libsqlPlace(env: Record<string, string | undefined>): LibsqlPlace | null {
  const url = env.WILD_SPRING_LIBSQL_URL?.replace(/\/$/, '') ?? ''
  if (url === '') return null
  if (!/^(https?|libsql):\/\/[^/@\s]+$/.test(url))
    throw new Error(
      `WILD_SPRING_LIBSQL_URL: "${url}" is no address of a libSQL server; write http://host:port, and the token into WILD_SPRING_LIBSQL_TOKEN.`,
    )
  if (env.WILD_SPRING_FOLLOW)
    throw new Error(
      'WILD_SPRING_FOLLOW is for a data file of this machine; with WILD_SPRING_LIBSQL_URL the libSQL server keeps the data, and copies of it follow there.',
    )
  return { url, token: env.WILD_SPRING_LIBSQL_TOKEN }
}
