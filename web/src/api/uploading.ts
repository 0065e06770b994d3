/**
 * A way to fetch that tells how much of the body is sent, 0 to 1. fetch itself does not tell it.
 */
export function uploading(told: (share: number) => void) {
  return async (request: Request): Promise<Response> => {
    const body = await request.blob()
    return new Promise((resolve, reject) => {
      const x = new XMLHttpRequest()
      x.open(request.method, request.url)
      request.headers.forEach((value, name) => x.setRequestHeader(name, value))
      x.responseType = 'blob'
      x.upload.onprogress = (e) => told(e.lengthComputable ? e.loaded / e.total : 0)
      x.upload.onload = () => told(1)
      x.onload = () => {
        const type = x.getResponseHeader('Content-Type') ?? ''
        const response = new Response(x.response as Blob, { status: x.status, headers: { 'Content-Type': type } })
        resolve(Object.defineProperty(response, 'url', { value: x.responseURL }))
      }
      x.onerror = () => reject(new TypeError('No connection'))
      request.signal.addEventListener('abort', () => x.abort())
      x.send(body)
    })
  }
}
