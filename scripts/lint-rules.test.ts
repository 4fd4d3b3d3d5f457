import { ESLint } from 'eslint';
import { expect, it } from 'vitest';

const eslint = new ESLint();

/** Messages about forbidden imports when this line stands in that file. */
async function forbidden(filePath: string, importLine: string): Promise<string[]> {
  const [result] = await eslint.lintText(`${importLine}\n`, { filePath });
  return (result?.messages ?? []).filter((m) => m.ruleId === 'no-restricted-imports').map((m) => m.message);
}

it.each([
  ['core/setup/x.ts', "import '@decurio/contract';"],
  ['core/setup/x.ts', "import '../../server/app.js';"],
  ['core/setup/x.ts', "import 'node:fs';"],
  ['contract/x.ts', "import '@decurio/server';"],
  ['contract/x.ts', "import '../web/app.js';"],
  ['server/routes/x.ts', "import '../../web/app.js';"],
  ['web/line/x.ts', "import '../bench/use-visit.js';"],
  ['web/bench/key-in/x.ts', "import '../../ledger/ledger-page.js';"],
  ['web/ui/x.tsx', "import '../orders/orders-page.js';"],
  ['web/state/x.ts', "import '../../core/index.js';"],
])('%s may not say %s', async (file, line) => {
  expect(await forbidden(file, line)).toHaveLength(1);
});

it.each([
  ['core/setup/x.ts', "import '../electrical/cell.js';"],
  ['contract/x.ts', "import '@decurio/core';"],
  ['server/routes/x.ts', "import '@decurio/contract';"],
  ['web/bench/key-in/x.ts', "import '../use-visit.js';"],
  ['web/line/x.ts', "import '../ui/glass.js';"],
  ['web/bench/x.ts', "import '@decurio/core';"],
])('%s may say %s', async (file, line) => {
  expect(await forbidden(file, line)).toEqual([]);
});
