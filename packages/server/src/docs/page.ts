/** The page on which the contract can be read. Its script and style are shipped, nothing is fetched. */
import { dirname } from 'node:path'
import { createRequire } from 'node:module'

/** Where the reader's files lie on disk. */
export const docsAssets = (): string =>
  dirname(createRequire(import.meta.url).resolve('swagger-ui-dist/package.json'))

export const docsPage = (): string => `<!doctype html>
<html lang="en-GB">
  <head>
    <meta charset="utf-8">
    <title>Plain Slate: the contract</title>
    <link rel="stylesheet" href="/api/docs/assets/swagger-ui.css">
  </head>
  <body>
    <main id="contract"></main>
    <script src="/api/docs/assets/swagger-ui-bundle.js"></script>
    <script src="/api/docs/assets/open.js"></script>
  </body>
</html>`

/** The few lines that open the reader; served as a file because the policy allows no inline script. */
export const docsScript = `SwaggerUIBundle({
  url: '/api/openapi.json',
  dom_id: '#contract',
  docExpansion: 'list',
  deepLinking: true,
  supportedSubmitMethods: [],
  validatorUrl: null,
})
`
