export { courseOfTemplate, type TemplateCourse } from './course';
export { countsStumbles, stumbled, stumblesOf, type Stumbles } from './stumbles';
export { forecastOf, foretellPlan } from './forecasting';
export { usually } from './usual';
export { paceSeen } from './asked';
export { paceFile, tablesOf } from './file';
export { uncount, wantPace, workPace } from './work';
