/**
 * A fetch that says how much of the body is sent, from 0 to 1; nothing else in
 * a browser can. The answer is read as the usual fetch would give it.
 */
export function sending(share: (sent: number) => void): (r: Request) => Promise<Response> {
  return async (r) => {
    const body = await r.blob();
    return new Promise((answer, fail) => {
      const x = new XMLHttpRequest();
      x.open(r.method, r.url);
      r.headers.forEach((value, name) => x.setRequestHeader(name, value));
      x.responseType = "blob";
      x.upload.onprogress = (e) => share(e.lengthComputable ? e.loaded / e.total : 0);
      x.upload.onload = () => share(1);
      x.onerror = () => fail(new TypeError("not reached"));
      x.onload = () =>
        answer(
          new Response(x.status === 204 ? null : (x.response as Blob), {
            status: x.status,
            headers: { "content-type": x.getResponseHeader("content-type") ?? "" },
          }),
        );
      x.send(body);
    });
  };
}
