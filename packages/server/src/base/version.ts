/** The product's version, told by health and in exports. */
export const VERSION = '0.1.0'
