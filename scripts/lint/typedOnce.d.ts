/** A parser for scripts in the shape that the linter takes. */
export declare function typedOnce(root: string, components: unknown): object
