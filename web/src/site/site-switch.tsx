import { ChevronsUpDown } from 'lucide'
import { Menu, MenuTrigger } from 'react-aria-components'
import { addressOfSite } from '../api/site-address.ts'
import { useSiteInfo } from '../api/hooks.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { MenuOpener, MenuPop, MenuRow } from '../ui/menu.tsx'
import { Icon } from '../ui/icon.tsx'

/** The way to the other sites that somebody works on; nothing for who works on one. */
export function SiteSwitch() {
  const { sites } = useMe()
  const { data: here } = useSiteInfo()
  if (sites.length < 2) return null
  return (
    <MenuTrigger>
      <MenuOpener aria-label="Switch site">
        <Icon of={ChevronsUpDown} size={15} strokeWidth={1.75} aria-hidden="true" />
      </MenuOpener>
      <MenuPop placement="bottom start">
        <Menu aria-label="Sites">
          {sites.map(({ id, name }) => (
            // A page load: nothing of one site is left in the tab when it works on another.
            <MenuRow key={id} href={addressOfSite(id, sites[0]!.id)} textValue={name}>
              {name} {id === here?.id && <small>This site</small>}
            </MenuRow>
          ))}
        </Menu>
      </MenuPop>
    </MenuTrigger>
  )
}
