/** What is larger than it may be is refused before it is read. This stands before all that reads a body. */
export default defineNitroPlugin((nitro) => {
  nitro.h3App.stack.unshift({
    route: '/',
    handler: defineEventHandler((event) => {
      if (event.method === 'GET' || event.method === 'HEAD') return
      const { req, res } = event.node
      const problem = bodyProblem(event.path.split('?')[0]!, req.headers)
      if (!problem) return
      // What is still on its way is not taken.
      res.writeHead(problem.statusCode, { 'Content-Type': 'application/json', Connection: 'close' })
      res.end(JSON.stringify({ ...problem, error: true }))
      req.destroy()
    }),
  })
})
