export * from './answer';
export { fieldsOf, finishAnswers, kindOf, openFields, type Answers } from './answers';
export { KINDS } from './kinds';
