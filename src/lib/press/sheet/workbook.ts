import type ExcelJS from 'exceljs';

/** An empty workbook. The package is read when the first is wanted: it is large, and every worker would wait for it. */
export async function workbook(): Promise<ExcelJS.Workbook> {
	const { default: kept } = await import('exceljs');
	return new kept.Workbook();
}
