import { randomUUID } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { INTAKE_LIMITS, type IntakeReport, type LineView } from '@decurio/contract';
import {
  checkFile,
  demoFile,
  DUE,
  errorOf,
  fillLibrary,
  ORDER_HEADER,
  orderFile,
  orderRow,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';
import { checkOrderFile } from '../intake/check-order-file.js';

let server: TestServer;
let teo: Person;
beforeAll(async () => {
  server = await startTestServer();
  const owner = await signInAs(server, 'owner');
  await fillLibrary(owner);
  const houseRules = JSON.parse(demoFile('rules/lantern-couriers.json')) as object;
  await owner.post('/api/library', { kind: 'houseRules', document: houseRules });
  teo = await signInAs(server, 'technician');
});
afterAll(() => server.close());

let run = 0;
let order = '';
beforeEach(() => {
  order = `T${++run}`;
});
const serial = (n: number) => `S${run}-${String(n).padStart(4, '0')}`;
const report = async (body: string | Buffer) => (await checkFile(teo, body)).json<IntakeReport>();
const take = (intakeId: string, person = teo) => person.post(`/api/intakes/${intakeId}/take`);
/** The file with one more column, the same in every row. */
const withColumn = (file: string, name: string, value: string): string =>
  file
    .split('\n')
    .map((row, i) => `${row},${i === 0 ? name : value}`)
    .join('\n');
const problems = async (body: string | Buffer) => (await report(body)).problems.map((p) => [p.line, p.column, p.code]);

describe('an order file', () => {
  it('of the demo is taken whole, in file order', async () => {
    const { taken, units } = await takeOrder(teo, demoFile('orders/causeway-2614.csv'));
    expect(taken).toMatchObject({ number: '2614', unitsTaken: 24 });
    expect(units.map((unit) => unit.serial).slice(0, 2)).toEqual(['S26-0501', 'S26-0502']);
    expect(units.every((unit) => unit.status === 'waiting' && unit.ladder === 'tttttttttt')).toBe(true);
  });

  it.each([
    ['with a BOM', (text: string) => `\ufeff${text}`],
    ['with CRLF', (text: string) => text.replace(/\n/g, '\r\n')],
    ['with old Mac line ends', (text: string) => text.replace(/\n/g, '\r')],
    ['with semicolons', (text: string) => text.replace(/,/g, ';')],
    ['with tabs', (text: string) => text.replace(/,/g, '\t')],
    ['with blank lines', (text: string) => `\n${text.replace(/\n/g, '\n\n , , ,\n')}\n\n`],
    [
      'with odd capitals in the header',
      (text: string) => text.replace(ORDER_HEADER, ' Order,CUSTOMER,Due,Place,Class,Type,Serial'),
    ],
  ])('%s is read the same', async (_how, change) => {
    const result = await report(change(orderFile([serial(1), serial(2)], order)));
    expect(result).toMatchObject({ rowsGood: 2, problemsInAll: 0, order: { number: order } });
  });

  it('in UTF-16 is read the same', async () => {
    const result = await report(Buffer.from(`\ufeff${orderFile([serial(1)], order)}`, 'utf16le'));
    expect(result).toMatchObject({ rowsGood: 1, problemsInAll: 0 });
  });

  it("may have commas in quotes, and emoji in a customer's name", async () => {
    const text = orderFile([serial(1)], order).replace('Causeway Holiday Park', '"Causeway, Park & Söhne 🚲"');
    expect(await report(text)).toMatchObject({ rowsGood: 1, order: { customer: 'Causeway, Park & Söhne 🚲' } });
  });

  it('names a missing column', async () => {
    const text = orderFile([serial(1)], order).replace(',class,', ',klass,');
    const result = await report(text);
    expect(result.order).toBeNull();
    expect(result.problems).toEqual([
      expect.objectContaining({ line: 1, code: 'missingColumn', message: expect.stringContaining('"class"') }),
      expect.objectContaining({ line: 1, column: 5, code: 'unknownColumn' }),
    ]);
  });

  it('names every bad row by line and column, and the good ones can still be taken', async () => {
    const rows = [
      orderRow(serial(1), order),
      orderRow(serial(2), order, 'Withy 900'),
      orderRow(serial(1), order),
      '',
      orderRow('', order),
      orderRow('S26-🚲', order),
      orderRow('X'.repeat(41), order),
      orderRow('Y'.repeat(40), order),
      orderRow(serial(9), 'another'),
      `${orderRow(serial(10), order)},surplus`,
    ];
    const result = await report([ORDER_HEADER, ...rows].join('\n'));
    expect(result.problems.map((p) => [p.line, p.column, p.columnName, p.code])).toEqual([
      [3, 6, 'type', 'unknownType'],
      [4, 7, 'serial', 'serialTwice'],
      [6, 7, 'serial', 'emptyCell'],
      [7, 7, 'serial', 'oddSerial'],
      [8, 7, 'serial', 'tooLong'],
      [10, 1, 'order', 'otherThanFirst'],
      [11, 0, null, 'tooManyCells'],
    ]);
    expect(result).toMatchObject({ rowsRead: 9, rowsGood: 2, rowsBad: 7 });
    expect((await take(result.intakeId)).json()).toMatchObject({ unitsTaken: 2 });
  });

  it('with a place, class, date or limit that nobody knows is not guessed at', async () => {
    const bad = (from: string, to: string) => problems(orderFile([serial(1)], order).replace(from, to));
    expect(await bad('Port Isel', 'Elsewhere')).toEqual([[2, 4, 'unknownPlace']]);
    expect(await bad('pedelec-25', 'moped')).toEqual([[2, 5, 'unknownClass']]);
    expect(await bad(DUE, '26/11/26')).toEqual([[2, 3, 'badDate']]);
    expect(await problems(`${ORDER_HEADER},limit km/h\n${orderRow(serial(1), order)},fast`)).toEqual([
      [2, 8, 'badLimit'],
    ]);
  });

  it('is refused by what it is, whatever its name', async () => {
    expect(await problems(Buffer.concat([Buffer.from('PK\u0003\u0004'), gzipSync('x')]))).toEqual([[0, 0, 'notCsv']]);
    expect((await report(Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10]))).problems[0]?.message).toContain('picture');
    expect(await problems('')).toEqual([[0, 0, 'empty']]);
    expect(await problems(ORDER_HEADER)).toEqual([[2, 0, 'noUnits']]);
    expect(await problems(Buffer.from('order,customer\n1,S\xf6hne', 'latin1'))).toEqual([[2, 0, 'notUtf8']]);
    expect(await problems(Buffer.from('order,a\0b'))).toEqual([[0, 0, 'notCsv']]);
  });

  it('with a quote that never closes says where reading stopped', async () => {
    const result = await report(`${orderFile([serial(1)], order)}\n${order},"Causeway Holiday Park,x\n`);
    expect(result.problems[0]).toMatchObject({ code: 'brokenRow', message: expect.stringContaining('quotation mark') });
    expect(result.problems[0]!.line).toBeGreaterThanOrEqual(3);
    expect(result.rowsGood).toBe(1);
  });

  it('of 20 MB is refused in the one error shape, and nothing is kept', async () => {
    const answer = await checkFile(teo, Buffer.alloc(20 * 1024 * 1024, 'a'));
    expect(answer.statusCode).toBe(413);
    expect(errorOf(answer)).toMatchObject({ code: 'tooLarge', message: expect.stringContaining('10 MB') });
    expect(INTAKE_LIMITS.bytes).toBe(10 * 1024 * 1024);
  });
});

describe('an order file with limits', () => {
  const header = 'order,customer,due,place,class,type,serial,limit km/h,limit mph,site limit mph,notes';
  const row = (limits: string, due = '2099-12-01 08:00') =>
    `${header}\nL${limits.length}${due.length},Causeway Holiday Park,${due},Port Isel,pedelec-25,Samphire 26,LIM-${limits.replace(/\W/g, '')},${limits}`;

  it('keeps each in the unit of its column', async () => {
    const result = await report(row(',12,10,Baskets last'));
    expect(result).toMatchObject({ rowsGood: 1, problemsInAll: 0 });
    const { orderId } = (await take(result.intakeId)).json<{ orderId: string }>();
    const order = (await teo.get(`/api/orders/${orderId}`)).json<{
      terms: object;
      notes: string;
      order: { limitKmh: number };
    }>();
    expect(order).toMatchObject({
      terms: { orderLimit: { value: 12, unit: 'mph' }, siteLimit: { value: 10, unit: 'mph' } },
      notes: 'Baskets last',
      order: { limitKmh: expect.closeTo(16.093, 3) },
    });
  });

  it('is asked once about what may be meant, and taken as it stands', async () => {
    const result = await report(row('15.5,,,', '2020-01-01 08:00'));
    expect(result.rowsGood).toBe(1);
    expect(result.doubts).toEqual([
      expect.stringContaining('which is past'),
      expect.stringContaining('If 15.5 mph (24.945 km/h) was meant, give it in mph'),
    ]);
  });

  it('given twice, or no speed at all, is told by its column', async () => {
    expect((await report(row('20,12,,'))).problems).toEqual([
      expect.objectContaining({ code: 'twoUnits', columnName: 'limit mph' }),
    ]);
    expect((await report(row('-5,,,'))).problems).toEqual([
      expect.objectContaining({ code: 'badLimit', columnName: 'limit km/h' }),
    ]);
  });
});

describe('taking', () => {
  it('twice gives the same order once', async () => {
    const { intakeId } = await report(orderFile([serial(1), serial(2)], order));
    const [one, two] = await Promise.all([take(intakeId), take(intakeId)]);
    expect(one.json()).toEqual(two.json());
    const line = (await teo.get(`/api/orders/${one.json<{ orderId: string }>().orderId}/line`)).json<LineView>();
    expect(line.units).toHaveLength(2);
    expect(line.order.units).toBe(2);
  });

  it('of a mended file adds only what is new', async () => {
    await takeOrder(teo, orderFile([serial(1), serial(2)], order));
    const mended = await report(orderFile([serial(1), serial(2), serial(3)], order));
    expect(mended).toMatchObject({
      rowsGood: 1,
      rowsAlreadyTaken: 2,
      rowsBad: 0,
      problemsInAll: 0,
      order: { isNew: false },
    });
    const again = (await take(mended.intakeId)).json<{ orderId: string; unitsTaken: number }>();
    expect(again.unitsTaken).toBe(1);
    const line = (await teo.get(`/api/orders/${again.orderId}/line`)).json<LineView>();
    expect(line.units.map((u) => u.serial)).toEqual([serial(1), serial(2), serial(3)]);
  });

  it('refuses a serial that stands in another open order, in any case of its letters', async () => {
    await takeOrder(teo, orderFile([serial(1)], order));
    const other = await report(orderFile([serial(1).toLowerCase(), serial(2)], `${order}-b`));
    expect(other.problems).toEqual([
      expect.objectContaining({
        line: 2,
        column: 7,
        code: 'inOtherOrder',
        message: expect.stringContaining(`order ${order} `),
      }),
    ]);
    expect(other.rowsGood).toBe(1);
  });

  it('of two files with one serial at the same time takes it into one order alone', async () => {
    const [a, b] = await Promise.all([
      report(orderFile([serial(1)], order)),
      report(orderFile([serial(1)], `${order}-b`)),
    ]);
    const answers = await Promise.all([take(a.intakeId), take(b.intakeId)]);
    expect(answers.map((answer) => answer.statusCode).sort()).toEqual([200, 409]);
    expect(errorOf(answers.find((answer) => answer.statusCode === 409)!).code).toBe('intakeStale');
  });

  it('refuses more of an order that was promised otherwise', async () => {
    await takeOrder(teo, orderFile([serial(1)], order));
    const other = await report(orderFile([serial(2)], order).replace('Causeway Holiday Park', 'Someone else'));
    expect(other).toMatchObject({ rowsGood: 0, problems: [{ code: 'orderDiffers', columnName: 'customer' }] });
    expect(errorOf(await take(other.intakeId)).code).toBe('intakeEmpty');
  });

  it.each([
    ['due', (file: string) => file.replaceAll(DUE, '2031-01-02 08:00')],
    ['order limit', (file: string) => withColumn(file, 'limit km/h', '12')],
    ['site limit', (file: string) => withColumn(file, 'site limit km/h', '12')],
    ['notes', (file: string) => withColumn(file, 'notes', 'bring the keys')],
    ['house rules', (file: string) => withColumn(file, 'house rules', 'lantern-couriers')],
  ])('refuses more of it where %s differs, and says both', async (what, change) => {
    await takeOrder(teo, orderFile([serial(1)], order));
    const { rowsGood, problems: found } = await report(change(orderFile([serial(2)], order)));
    expect([rowsGood, found.map(({ columnName }) => columnName)]).toEqual([0, [what]]);
    expect(found[0]?.message).toContain('this file says');
  });

  it('of two files that promise one order otherwise takes the first, and holds the second against it', async () => {
    const twenty = await report(withColumn(orderFile([serial(1)], order), 'limit km/h', '20'));
    const twelve = await report(withColumn(orderFile([serial(2)], order), 'limit km/h', '12'));
    expect([twenty.rowsGood, twelve.rowsGood]).toEqual([1, 1]);
    const answers = await Promise.all([take(twenty.intakeId), take(twelve.intakeId)]);
    expect(answers.map(({ statusCode }) => statusCode).sort()).toEqual([200, 409]);
    const late = await take(answers[0]!.statusCode === 200 ? twelve.intakeId : twenty.intakeId);
    expect(errorOf(late)).toMatchObject({ code: 'orderDiffers', message: expect.stringContaining('order limit') });
  });

  it("never falls back to another customer's house rules", () => {
    const shelf = { types: [], maps: [], rulePacks: [], houseRules: [{ id: 'theirs', customer: 'Somebody else' }] };
    const { order: none, problems: said } = checkOrderFile(
      [
        { line: 1, cells: ORDER_HEADER.split(',') },
        { line: 2, cells: orderRow(serial(1), order).split(',') },
      ],
      shelf,
    );
    expect(none).toBeNull();
    expect(said.map(({ code }) => code)).toContain('unknownHouseRules');
  });

  it('puts new units behind all that were ever in the order, withdrawn ones included', async () => {
    const { taken, units } = await takeOrder(teo, orderFile([serial(1), serial(2), serial(3)], order));
    const ines = await signInAs(server, 'lead');
    await ines.post(`/api/orders/${taken.orderId}/withdrawals`, {
      id: randomUUID(),
      unitIds: [units[0]!.id],
      reason: 'sold elsewhere',
    });
    await takeOrder(teo, orderFile([serial(4)], order));
    const places = await server.app.source.manager.query<{ serial: string; position: number }[]>(
      'SELECT serial, position FROM unit WHERE orderId = ? ORDER BY position',
      [taken.orderId],
    );
    expect(places.map(({ position }) => position)).toEqual([1, 2, 3, 4]);
    expect(places.at(-1)?.serial).toBe(serial(4));
  });

  it('is for whoever checked the file, and only while it is kept', async () => {
    const { intakeId } = await report(orderFile([serial(1)], order));
    expect(errorOf(await take(intakeId, await signInAs(server, 'owner'))).code).toBe('intakeGone');
    expect(errorOf(await take(randomUUID())).code).toBe('intakeGone');
  });
});
