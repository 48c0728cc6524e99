export declare const ROOT: string
export declare function ensurePackages(): void
