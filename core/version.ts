/** Cached analyses carry this; raise it when a metric's definition changes. */
export const coreVersion = '9'
