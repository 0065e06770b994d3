import { ElMessage } from 'element-plus'

/**
 * Says something in passing, at the foot of the window, where it covers no figure of the verdict. Long ones can be
 * closed.
 */
export function notice(message: string, { seconds = 4, error = false } = {}) {
  ElMessage({
    message,
    type: error ? 'error' : 'info',
    icon: undefined,
    duration: seconds * 1000,
    showClose: seconds > 3,
    placement: 'bottom',
    offset: 20,
  })
}
