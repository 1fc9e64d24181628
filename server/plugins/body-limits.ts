/** For so long what is still sent is thrown away as it comes, ms. */
const LINGERS = 1_000

/** What is larger than it may be is refused before it is read. This stands before all that reads a body. */
export default defineNitroPlugin((nitro) => {
  nitro.h3App.stack.unshift({
    route: '/',
    handler: defineEventHandler((event) => {
      if (event.method === 'GET' || event.method === 'HEAD') return
      const { req, res } = event.node
      const problem = bodyProblem(event.path.split('?')[0]!, req.headers)
      if (!problem) return
      res.writeHead(problem.statusCode, { 'Content-Type': 'application/json' })
      res.end(JSON.stringify({ ...problem, error: true }))
      // Whoever still sends gets a moment to read that: closed at once, they would see nothing but a reset.
      setTimeout(() => req.complete || req.destroy(), LINGERS).unref()
    }),
  })
})
