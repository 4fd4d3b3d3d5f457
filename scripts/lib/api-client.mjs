/**
 * @typedef {object} Client
 * @property {(path: string) => Promise<any>} get
 * @property {(path: string, body: object) => Promise<any>} post
 * @property {(path: string, body: object) => Promise<any>} put
 * @property {(path: string, body: string, type: string) => Promise<any>} postText
 * @property {string} cookie
 */

/**
 * Signs in and gives a client that carries the session. Throws with the server's own words on any refusal.
 * @param {string} address @param {string} name @param {string} password @param {string} station
 * @returns {Promise<Client>}
 */
export async function signIn(address, name, password, station) {
  const answer = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name, password, station }),
  });
  await read(answer);
  const cookie = (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
  /** @param {string} path @param {string} body @param {string} type @param {string} [method] */
  const send = async (path, body, type, method = 'POST') =>
    read(await fetch(address + path, { method, headers: { 'content-type': type, cookie }, body }));
  return {
    cookie,
    get: async (path) => read(await fetch(address + path, { headers: { cookie } })),
    post: (path, body) => send(path, JSON.stringify(body), 'application/json'),
    put: (path, body) => send(path, JSON.stringify(body), 'application/json', 'PUT'),
    postText: (path, body, type) => send(path, body, type),
  };
}

/** @param {Response} answer */
async function read(answer) {
  /** @type {any} */
  const body = answer.status === 204 ? null : await answer.json();
  if (!answer.ok)
    throw new Error(
      `${answer.status} ${body?.error?.code}: ${body?.error?.message} ${JSON.stringify(body?.error?.fields ?? {})}`,
    );
  return body;
}
