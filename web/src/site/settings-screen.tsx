import { useEffect, useState, type ReactNode } from 'react'
import { useLocation } from 'react-router'
import styled from 'styled-components'
import { mutate } from 'swr'
import { languageFault, MOST_NAVIGATION, type SiteInfo, type SiteSettings } from '@gullyline/core'
import { request } from '../api/client.ts'
import { inSite } from '../api/site-address.ts'
import { useSite, type Site } from '../api/hooks.ts'
import { PictureDialog } from '../media/picture-dialog.tsx'
import { thumbnail } from '../media/thumbnail.ts'
import { useMe } from '../people/sign-in-gate.tsx'
import { Button } from '../ui/controls.tsx'
import { DraftLine } from '../ui/draft-line.tsx'
import { useDraft } from '../ui/drafts.ts'
import { later } from '../ui/later.ts'
import { LaterPart } from '../ui/later-part.tsx'
import { messageOf } from '../ui/message-of.ts'
import { Waiting } from '../ui/waiting.tsx'
import { Sheet } from './sheet.ts'
import { SiteScreen } from './site-screen.tsx'
import { SizesSetting } from './sizes-setting.tsx'

const Part = styled.section`
  display: grid;
  gap: 8px;
  padding-top: 18px;
  border-top: 1px solid var(--line);
  scroll-margin-top: 20px;
  h2 {
    font-size: 14px;
  }
  p {
    color: var(--quiet);
    font-size: 12px;
  }
  img {
    max-width: 180px;
    max-height: 96px;
    border-radius: 4px;
    object-fit: contain;
    background: var(--panel);
  }
`
const Chosen = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
`
const Flag = styled.label`
  display: flex;
  gap: 8px;
  align-items: center;
`
const Trouble = styled.p`
  && {
    color: var(--clay);
  }
`

const lookSetting = later(() => import('./look-setting.tsx'))

/** What the administrator sets for the whole site. Others see it and can't change it. */
export function SettingsScreen() {
  const { data, error } = useSite()
  return (
    <SiteScreen title="Settings">
      {data ? (
        <Settings site={data} />
      ) : (
        <Waiting title={error ? 'The settings can’t be shown' : 'Reading the settings…'}>
          {error?.message}
        </Waiting>
      )}
    </SiteScreen>
  )
}

type Changed = Partial<SiteSettings>

async function save(wanted: Changed, was: Changed): Promise<true> {
  await mutate(
    inSite(''),
    request<SiteInfo>(inSite('/settings'), { method: 'PUT', body: { ...wanted, was } }),
    {
      revalidate: false,
    },
  )
  return true
}

function Settings({ site }: { site: Site }) {
  const isAdministrator = useMe().role === 'keeper'
  const { hash } = useLocation()
  useEffect(() => {
    if (hash !== '') document.getElementById(hash.slice(1))?.scrollIntoView({ block: 'start' })
  }, [hash])
  return (
    <Sheet>
      <div>
        <h1>Settings</h1>
        {!isAdministrator && <p>Only administrators can change these settings.</p>}
        <TextSetting
          id="name"
          title="Site name"
          saved={site.name}
          isReadOnly={!isAdministrator}
          save={(name, was) => save({ name }, { name: was })}
        >
          Shown in the title of every page, and where pages are shared. Saving it updates the live site.
        </TextSetting>
        <TextSetting
          id="language"
          title="Language"
          saved={site.language}
          isReadOnly={!isAdministrator}
          fault={languageFault}
          save={(language, was) => save({ language }, { language: was })}
        >
          The language of the pages, as a tag such as en-GB or de. Screen readers, browsers and search engines
          use it.
        </TextSetting>
        <PictureSetting
          id="icon"
          title="Icon"
          site={site}
          field="icon"
          isReadOnly={!isAdministrator}
          none="Made of the first letter of the site name."
        >
          Shown in browser tabs and on home screens. A square picture of at least 512 px works best.
        </PictureSetting>
        <PictureSetting
          id="share-picture"
          title="Sharing picture"
          site={site}
          field="sharePicture"
          isReadOnly={!isAdministrator}
          none="None. Pages with a sharing picture of their own show that one."
        >
          Shown where a page is shared that has no sharing picture of its own.
        </PictureSetting>
        <TextSetting
          id="navigation-limit"
          title="Pages in the navigation"
          saved={String(site.navigationLimit)}
          isReadOnly={!isAdministrator}
          fault={limitFault}
          save={(text, was) => save({ navigationLimit: Number(text) }, { navigationLimit: Number(was) })}
        >
          So many pages at the top level are in the navigation by themselves. Pages added after them are not,
          until you add them under Navigation.
        </TextSetting>
        <Part id="look" aria-label="Look">
          <h2>Look</h2>
          <p>
            Colours, spaces, corners, text sizes and fonts of all pages, as a file of design tokens in the
            format of the Design Tokens Community Group.
          </p>
          <LaterPart code={lookSetting}>
            {({ LookSetting }) => <LookSetting site={site} isReadOnly={!isAdministrator} />}
          </LaterPart>
        </Part>
        <Part id="sizes" aria-label="Screen sizes">
          <h2>Screen sizes</h2>
          <p>
            Named ranges of screen widths. Blocks can be arranged differently at each; narrower sizes inherit
            from wider ones.
          </p>
          <SizesSetting site={site} isReadOnly={!isAdministrator} />
        </Part>
        <OwnValues site={site} isReadOnly={!isAdministrator} />
      </div>
    </Sheet>
  )
}

function limitFault(text: string): string | undefined {
  const isLimit = /^\d+$/.test(text) && Number(text) <= MOST_NAVIGATION
  return isLimit ? undefined : `A number from 0 to ${MOST_NAVIGATION}.`
}

interface TextSettingProps {
  readonly id: string
  readonly title: string
  readonly saved: string
  readonly isReadOnly: boolean
  readonly fault?: (text: string) => string | undefined
  readonly save: (text: string, was: string) => Promise<true>
  readonly children: ReactNode
}

function TextSetting({ id, title, saved, isReadOnly, fault, save: saveText, children }: TextSettingProps) {
  const draft = useDraft({ name: `site.${id}`, label: title, saved, save: saveText })
  return (
    <Part id={id} aria-label={title}>
      <DraftLine label={title} draft={draft} saved={saved} isReadOnly={isReadOnly} fault={fault} />
      <p>{children}</p>
    </Part>
  )
}

interface PictureSettingProps {
  readonly id: string
  readonly title: string
  readonly site: Site
  readonly field: 'icon' | 'sharePicture'
  readonly isReadOnly: boolean
  /** What is so while no picture is chosen. */
  readonly none: string
  readonly children: ReactNode
}

function PictureSetting({ id, title, site, field, isReadOnly, none, children }: PictureSettingProps) {
  const [isChoosing, setChoosing] = useState(false)
  const [trouble, setTrouble] = useState<string>()
  const chosen = site[field]
  const picture = chosen === null ? undefined : site.pictures[chosen]
  const choose = (next: string | null): void => {
    setChoosing(false)
    setTrouble(undefined)
    save({ [field]: next }, { [field]: chosen }).catch((error: unknown) => setTrouble(messageOf(error)))
  }
  return (
    <Part id={id} aria-labelledby={`${id}-title`}>
      <h2 id={`${id}-title`}>{title}</h2>
      <Chosen>
        {picture ? <img src={thumbnail(picture)} alt={picture.alt} /> : <span>{none}</span>}
        {!isReadOnly && (
          <Button aria-label={`${title}: choose`} onPress={() => setChoosing(true)}>
            {picture ? 'Replace' : 'Choose a picture'}
          </Button>
        )}
        {!isReadOnly && picture && (
          <Button aria-label={`${title}: reset`} onPress={() => choose(null)}>
            Reset
          </Button>
        )}
      </Chosen>
      <p>{children}</p>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      {isChoosing && (
        <PictureDialog
          pictures={site.pictures}
          chosenId={chosen ?? undefined}
          onChoose={(next) => choose(next ?? null)}
          onClose={() => setChoosing(false)}
        />
      )}
    </Part>
  )
}

function OwnValues({ site, isReadOnly }: { site: Site; isReadOnly: boolean }) {
  const [trouble, setTrouble] = useState<string>()
  const [pending, setPending] = useState<boolean>()
  const saved = site.look.ownValues === true
  const ownValues = pending ?? saved
  return (
    <Part id="own-values" aria-label="Custom sizes and colours">
      <Flag>
        <input
          type="checkbox"
          checked={ownValues}
          disabled={isReadOnly}
          onChange={(event) => {
            const next = event.target.checked
            setTrouble(undefined)
            setPending(next)
            save({ ownValues: next }, { ownValues: saved })
              .catch((error: unknown) => setTrouble(messageOf(error)))
              .finally(() => setPending(undefined))
          }}
        />
        Allow custom sizes and colours
      </Flag>
      <p>
        {ownValues
          ? 'Editors can use sizes and colours that are not in the look. Each one is listed as a warning.'
          : 'Blocks use the sizes and colours of the look only. A page with others can be saved, but not published.'}
      </p>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </Part>
  )
}
