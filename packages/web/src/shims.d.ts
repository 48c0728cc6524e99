/** Style-only modules, which have no types of their own. */
declare module 'vuetify/styles/core'
declare module '@fontsource-variable/atkinson-hyperlegible-next'
declare module '@fontsource-variable/atkinson-hyperlegible-mono'
