export * from './answer';
export { fieldsOf, finishAnswers, kindOf, openFields, type Answers } from './answers';
export type { FieldContext, FieldKind } from './kind';
export { KINDS } from './kinds';
