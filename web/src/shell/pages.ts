import list from './pages.json'

/** The pages that there are: one without a component does not compile, see router.ts. */
export type PageName = keyof typeof list

/** A page of a site: what makes it known to the router, the rail, the commands, the keys and the tests. */
export interface Page {
  name: PageName
  path: string // below that of the site
  title: string
  short?: string // on the rail, where the title is too long
  under?: boolean // whether it belongs to the page above it on the rail
  counts?: boolean // whether the rail says how many errors are open
  key: string // with Alt and Shift
  parts?: { part?: string; title: string }[]
}

export const pages = (Object.entries(list) as [PageName, Omit<Page, 'name'>][]).map(([name, page]): Page => ({
  name,
  ...page,
}))
