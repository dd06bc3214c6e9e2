export declare const DEFAULT_PORT: number
export declare function portFrom(env: Readonly<Record<string, string | undefined>>): number | string
