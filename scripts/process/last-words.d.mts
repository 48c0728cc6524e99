export declare function lastWords(what: string, error: unknown, file?: string): string
export declare function endInASentence(what: string, before?: (sentence: string) => void): void
