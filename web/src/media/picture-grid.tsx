import styled from 'styled-components'
import type { Picture } from '@gullyline/core'
import { thumbnail } from './thumbnail.ts'

const Grid = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
  gap: 12px;
  margin: 0;
  padding: 3px;
  list-style: none;
  button {
    display: grid;
    gap: 4px;
    width: 100%;
    padding: 0;
    border: 0;
    background: none;
    color: var(--plain);
    text-align: left;
  }
  img {
    display: block;
    width: 100%;
    aspect-ratio: 4/3;
    border-radius: 4px;
    object-fit: cover;
    background: var(--line);
  }
  button:hover img {
    box-shadow: 0 0 0 2px var(--lineStrong);
  }
  button[aria-pressed='true'] img {
    box-shadow: 0 0 0 2.5px var(--accentBright);
  }
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-size: 12px;
  }
`

interface PictureGridProps {
  readonly pictures: readonly Picture[]
  readonly chosen: readonly string[]
  readonly onChoose: (id: string) => void
}

/** Pictures of the library, which can be chosen. */
export function PictureGrid({ pictures, chosen, onChoose }: PictureGridProps) {
  return (
    <Grid aria-label="Pictures">
      {pictures.map((picture) => (
        <li key={picture.id}>
          <button
            type="button"
            aria-pressed={chosen.includes(picture.id)}
            title={picture.name}
            onClick={() => onChoose(picture.id)}
          >
            <img src={thumbnail(picture)} alt={picture.alt} loading="lazy" />
            <span>{picture.name}</span>
          </button>
        </li>
      ))}
    </Grid>
  )
}

/** Pictures whose name or alternative text has all the words that were typed. */
export function findPictures(pictures: Readonly<Record<string, Picture>>, search: string): Picture[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  return Object.values(pictures).filter((picture) => {
    const text = `${picture.name} ${picture.alt}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
}
