// The shelf: finishes and photos, and the one way by which photos come in.

import { defineStore } from 'pinia'
import { reactive, ref } from 'vue'

import { Cancelled, get, order, post, Refused, remove, upload } from '../api/client'
import type { BackupMade, DiskUse, FinishFace, FinishState, JobTold, Model, Photo, Row, SizePlan } from '../api/types'
import { downloadFrom } from '../composables/downloads'
import { runJob } from '../composables/jobs'
import { everything, inWords, setFavourite } from '../composables/library'
import { counted } from '../composables/numbers'
import { usePhotoPages } from '../composables/photoPages'
import { useNotices } from './notices'
import { useStyles } from './styles'
import { useWork } from './work'

/** Whether a file is a finish that was saved with all that it needs. */
const isPackage = ({ name }: File) => name.toLowerCase().endsWith('.finish.zip')
const isBackup = ({ name }: File) => name.toLowerCase().endsWith('.backup.zip')

interface FinishPage {
  finishes: FinishFace[]
  total: number
}

export const useShelf = defineStore('shelf', () => {
  const notices = useNotices()
  const styles = useStyles()
  const work = useWork()
  const finishes = ref<FinishFace[]>([])
  const total = ref(0)
  /** Which photos are looked for. */
  const photoQuery = reactive(everything())
  const originals = usePhotoPages(photoQuery)
  /** Whether there are any, whatever is looked for. */
  const hasPhotos = ref(false)
  /** The photo whose finishes are shown alone. */
  const users = ref<Photo | null>(null)
  /** Why files were not taken, the newest last. */
  const refusals = ref<string[]>([])
  const search = ref('')
  const binned = ref(false)
  const loaded = ref(false)
  /** The ids of finishes that were ticked. */
  const chosenFinishes = ref<string[]>([])

  async function load(): Promise<void> {
    try {
      const wanted = query(0)
      const [page] = await Promise.all([get<FinishPage>(wanted), loadPhotos()])
      if (wanted !== query(0)) return // the search went on meanwhile
      finishes.value = page.finishes
      total.value = page.total
      loaded.value = true
    } catch (error) {
      notices.tell(error)
    }
  }

  async function loadPhotos(): Promise<void> {
    await originals.load()
    hasPhotos.value = originals.total.value > 0 || inWords(photoQuery) !== ''
  }

  async function loadMore(): Promise<void> {
    try {
      const page = await get<FinishPage>(query(finishes.value.length))
      finishes.value = [...finishes.value, ...page.finishes]
    } catch (error) {
      notices.tell(error)
    }
  }

  function query(offset: number): string {
    const uses = users.value && `photo:${users.value.sha256}`
    return `/finishes?${inWords({ search: search.value, binned: binned.value || '', uses, offset })}`
  }

  /** Bring photos in, each as a finish of its own; returns the ids of the new finishes. */
  async function bring(files: File[]): Promise<string[]> {
    const started: string[] = []
    refusals.value = refusals.value.slice(-3)
    for (const file of files) {
      if (isBackup(file)) {
        await restoreBackup(file)
        continue
      }
      try {
        const path = `/photos?name=${encodeURIComponent(file.name.slice(-120))}`
        const id = await work.run(`Adding ${file.name}`, async (following) => {
          if (isPackage(file)) return (await upload<FinishState>('/finishes/file', file, following)).id
          const photo = await upload<Photo>(path, file, following)
          following.signal.throwIfAborted()
          photo.notes.forEach((note) => notices.say(`${photo.name}: ${note}`))
          return start(photo.sha256)
        })
        started.push(id)
      } catch (error) {
        if (error instanceof Cancelled) continue
        if (error instanceof Refused) refusals.value.push(error.message)
        notices.tell(error)
      }
    }
    return started
  }

  /** Have the browser save an archive of the whole shelf, once it is made. */
  async function backUp(): Promise<void> {
    try {
      const made = await work.run('Backing up', (following) =>
        runJob<BackupMade>(() => post<JobTold>('/shelf/backup'), following),
      )
      downloadFrom(`/api/shelf/backup/${made.id}`, 'shelf.backup.zip')
    } catch (error) {
      if (!(error instanceof Cancelled)) notices.tell(error)
    }
  }

  /** Fill this shelf, which has to be empty, with a backup. */
  async function restoreBackup(file: File): Promise<void> {
    try {
      await work.run(`Restoring ${file.name}`, (following) => upload<DiskUse>('/shelf/restore', file, following))
      notices.say('The shelf is as it was in the backup.')
      await Promise.all([load(), styles.load()])
    } catch (error) {
      if (!(error instanceof Cancelled)) notices.tell(error)
    }
  }

  /** Start a finish of each photo, its words from the table's row; returns the ids of those that came about. */
  async function startMany(photos: Photo[], rows: Row[], model: Model): Promise<string[]> {
    const started: string[] = []
    try {
      await work.run(`Finishing ${counted(photos.length, 'photo', 'photos')}`, async ({ progress, signal }) => {
        for (const [number, { sha256, name }] of photos.entries()) {
          if (signal.aborted) return
          progress(number / photos.length)
          try {
            started.push((await post<FinishState>('/finishes', { photo: sha256, row: rows[number] ?? {}, ...model })).id)
          } catch (error) {
            notices.say(`${name}: ${notices.inWords(error)}`, true)
          }
        }
      })
    } catch (error) {
      if (!(error instanceof Cancelled)) notices.tell(error)
    }
    return started
  }

  /** Start a finish from a photo on the shelf, in the house style that was chosen; returns its id. */
  async function start(photo: string): Promise<string> {
    await styles.loadOnce()
    return (await post<FinishState>('/finishes', { photo, style: styles.chosen })).id
  }

  /** Start a finish of this size that has no photo; returns its id. */
  async function startBlank(plan: SizePlan): Promise<string> {
    return (await post<FinishState>('/finishes', { plan })).id
  }

  async function change(action: () => Promise<unknown>): Promise<void> {
    try {
      await action()
    } catch (error) {
      notices.tell(error)
    }
    await load()
  }

  const duplicate = (id: string) => change(() => post(`/finishes/${id}/duplicate`))
  /** Take back the last change of a finish that can't be shown. */
  const goBack = ({ id, etag }: FinishFace) => change(() => post(`/finishes/${id}/undo`, { etag }))
  const rename = ({ id, etag }: FinishFace, name: string) => change(() => post(`/finishes/${id}/rename`, { etag, name }))
  const putInBin = (ids: string[]) =>
    change(async () => {
      chosenFinishes.value = chosenFinishes.value.filter((id) => !ids.includes(id))
      for (const id of ids) await order(`/finishes/${id}/bin`)
    })
  const restore = (id: string) => change(() => order(`/finishes/${id}/restore`))
  const deleteFinish = (id: string) => change(() => remove(`/finishes/${id}`))
  /** Delete photos; each that is still needed stays, and it is said why. */
  const deletePhotos = (photos: Photo[]) =>
    change(async () => {
      for (const { sha256, name } of photos) {
        try {
          await remove(`/photos/${sha256}`)
        } catch (error) {
          notices.say(photos.length > 1 ? `${name}: ${notices.inWords(error)}` : notices.inWords(error), true)
        }
      }
    })

  async function likePhoto({ sha256 }: Photo, favourite: boolean): Promise<void> {
    if (!(await setFavourite(`photo:${sha256}`, favourite))) return
    const changed = (photo: Photo) => (photo.sha256 === sha256 ? { ...photo, favourite } : photo)
    originals.photos.value = originals.photos.value.map(changed)
  }

  /** Show only the finishes that use this photo; all of them for none. */
  function showUsers(photo: Photo | null): Promise<void> {
    users.value = photo
    search.value = ''
    return load()
  }

  function showAllPhotos(): Promise<void> {
    Object.assign(photoQuery, everything())
    return loadPhotos()
  }

  return {
    finishes,
    total,
    photos: originals.photos,
    photoCount: originals.total,
    hasMorePhotos: originals.hasMore,
    loadMorePhotos: originals.loadMore,
    refusals,
    search,
    binned,
    loaded,
    chosenFinishes,
    load,
    loadMore,
    bring,
    backUp,
    restoreBackup,
    start,
    startMany,
    startBlank,
    duplicate,
    rename,
    goBack,
    putInBin,
    restore,
    deleteFinish,
    deletePhotos,
    likePhoto,
    photoQuery,
    hasPhotos,
    loadPhotos,
    showAllPhotos,
    users,
    showUsers,
  }
})
