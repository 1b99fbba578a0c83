import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'

/** Chooses from a list by what the option says. Lists that were opened before are still there, and cannot be pressed. */
export async function choose(list: HTMLElement, option: string | RegExp): Promise<void> {
  await userEvent.click(list)
  const offered = await waitFor(() => {
    const found = screen
      .getAllByTitle(option)
      .find(
        (item) =>
          item.className.includes('option') && getComputedStyle(item).pointerEvents !== 'none'
      )
    if (!found) throw new Error(`${String(option)} is not offered`)
    return found
  })
  await userEvent.click(offered)
}

/** The same, from the list of this name. */
export const chooseFrom = (list: string, option: string | RegExp): Promise<void> =>
  choose(screen.getByRole('combobox', { name: list }), option)
