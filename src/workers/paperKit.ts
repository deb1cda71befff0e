import fonts from 'pdfmake/build/vfs_fonts';
import { prepareZXingModule } from 'zxing-wasm/writer';
import wasm from 'zxing-wasm/writer/zxing_writer.wasm?url';
import { bytesFrom } from '@/core/basics/base64';
import { fontsNeeded } from '@/core/formats/scripts/fontRuns';
import { codeOf } from '@/core/intake/paper/codes';
import type { PaperKit } from '@/core/intake/paper/pdfDrawing';
import { scriptFaces } from './scriptFonts';

prepareZXingModule({ overrides: { locateFile: () => wasm } });

const fontFile = (name: string) => bytesFrom((fonts as Record<string, string>)[name] ?? '');

/** What answer papers with these texts are made with; fonts for other letters are fetched only for them. */
export async function paperKitFor(texts: readonly string[]): Promise<PaperKit> {
  const { faces } = fontsNeeded(texts, scriptFaces);
  const files = scriptFaces
    .filter(({ name }) => faces.some((face) => face.name === name))
    .map(async (face) => ({
      ...face,
      bytes: new Uint8Array(await (await fetch(face.url)).arrayBuffer()),
    }));
  return {
    regular: fontFile('Roboto-Regular.ttf'),
    bold: fontFile('Roboto-Medium.ttf'),
    faces: await Promise.all(files),
    codeOf,
  };
}
