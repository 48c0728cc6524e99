export declare function digestOf(sources: readonly string[]): string
export declare function isOf(stamp: string, digest: string): boolean
