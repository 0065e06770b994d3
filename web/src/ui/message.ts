/** What notices are made of, apart, as the first look at a page has none. */
export { ElMessage } from 'element-plus'
