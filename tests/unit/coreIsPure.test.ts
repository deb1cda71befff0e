import { fileURLToPath } from 'node:url';
import { build, type Rollup } from 'vite';
import { describe, expect, it } from 'vitest';
import { coreIsPure, withoutEffects } from '../../scripts/astro/coreIsPure.mjs';

const here = (path: string) => fileURLToPath(new URL(`../../${path}`, import.meta.url));

/** The script of a page that uses this module of core. */
async function scriptOf(path: string, plugins: ReturnType<typeof coreIsPure>[]): Promise<string> {
  const built = (await build({
    configFile: false,
    logLevel: 'silent',
    root: here('.'),
    plugins,
    resolve: { alias: { '@': here('src') } },
    build: { write: false, minify: false, lib: { entry: here(path), formats: ['es'] } },
  })) as Rollup.RollupOutput[];
  return built.flatMap(({ output }) => output.map((each) => ('code' in each ? each.code : ''))).join('\n');
}

describe('core as a page gets it', () => {
  it('has no schema in it where none is used, and all of Zod without being told', async () => {
    const page = 'src/core/model/names.ts';
    const used = 'src/core/kinds/fillings.ts';
    expect(await scriptOf(page, [coreIsPure()])).not.toContain('ZodObject');
    expect(await scriptOf(used, [coreIsPure()])).not.toContain('ZodObject');
    expect(await scriptOf('src/core/kinds/options.ts', [])).toContain('ZodObject');
  });

  it('is the same in what it gives', () => {
    const code = 'const two = Math.max(1, 2);\nconst row = { two, also: [two].length };\nconst plain = 3;';
    const pure = withoutEffects(code);
    expect(pure.match(/@__PURE__/g)).toHaveLength(2);
    const run = (text: string): unknown => new Function(`${text}; return [two, row, plain];`)();
    expect(run(pure)).toEqual(run(code));
  });
});
