import fc from 'fast-check';
import { z } from 'zod';

/** Anything that a schema lets in, made from the schema itself: `text` stands wherever a string does. */
export function anyOf<T>(schema: z.ZodType<T>, text: fc.Arbitrary<string>, most = 6): fc.Arbitrary<T> {
  const of = (inner: z.core.$ZodType): fc.Arbitrary<unknown> => {
    if (inner instanceof z.ZodObject)
      return fc.record(
        Object.fromEntries(
          Object.entries(inner.shape as z.core.$ZodShape).map(([name, each]) => [name, of(each)]),
        ),
      );
    if (inner instanceof z.ZodArray) return fc.array(of(inner.element), { maxLength: most });
    if (inner instanceof z.ZodRecord) return fc.dictionary(text, of(inner.valueType), { maxKeys: most });
    if (inner instanceof z.ZodOptional) return of(inner.unwrap());
    if (inner instanceof z.ZodNumber) return fc.nat(4_000);
    if (inner instanceof z.ZodString) return text;
    throw new Error(`nothing is made yet for ${inner._zod.def.type}`);
  };
  return of(schema).filter((value): value is T => schema.safeParse(value).success);
}
