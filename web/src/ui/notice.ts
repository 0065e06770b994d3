import { h } from 'vue'

/**
 * Says something in passing, at the foot of the window, where it covers no figure of the verdict. Long ones can be
 * closed; one that can be taken back says how.
 */
export async function notice(
  message: string,
  {
    seconds = 4,
    error = false,
    act,
  }: { seconds?: number; error?: boolean; act?: { label: string; run: () => void } } = {},
) {
  const { ElMessage } = await import('./message')
  const shown = ElMessage({
    message: act
      ? h('span', [
          `${message} `,
          h(
            'button',
            {
              type: 'button',
              class: 'plain-button link',
              'data-test': 'notice-act',
              onClick: () => {
                shown.close()
                act.run()
              },
            },
            act.label,
          ),
        ])
      : message,
    type: error ? 'error' : 'info',
    icon: undefined,
    duration: seconds * 1000,
    showClose: seconds > 3,
    placement: 'bottom',
    offset: 20,
  })
}
