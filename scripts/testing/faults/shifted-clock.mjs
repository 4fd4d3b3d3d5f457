/** Loaded before a server: a SIGUSR2 sets its clock ahead by `DECURIO_CLOCK_ADD_MS`, and the next one right again. */
let addMs = 0;
const realNow = Date.now;
const now = () => realNow() + addMs;

globalThis.Date = new Proxy(Date, {
  construct: (real, given, of) => Reflect.construct(real, given.length === 0 ? [now()] : given, of),
  get: (real, name) => (name === 'now' ? now : Reflect.get(real, name)),
});

process.on('SIGUSR2', () => {
  addMs = addMs === 0 ? Number(process.env['DECURIO_CLOCK_ADD_MS'] ?? 0) : 0;
});
