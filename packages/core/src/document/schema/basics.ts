import { z } from 'zod';

// The text given to each kind is what an error says was expected there.
export const number = z.number({ error: 'a number' });
export const text = z.string({ error: 'a text' });
export const flag = z.boolean({ error: 'true or false' });
export const pair = z.tuple([number, number], { error: 'two numbers, such as [48, 48]' });
export const box = z.tuple([number, number, number, number], { error: '[x, y, width, height]' });
export const named = <T extends z.ZodType>(value: T, error: string): z.ZodRecord<z.ZodString, T> =>
  z.record(z.string(), value, { error });
export const section = <T extends z.core.$ZodLooseShape>(shape: T, error: string) =>
  z.strictObject(shape, { error });
