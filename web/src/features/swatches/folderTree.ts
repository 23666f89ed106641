import type { Swatch } from '@/api/recipe'

/** A folder of swatches with those in it. */
export interface Folder {
  name: string
  /** Names of all folders down to it, parted by slashes; empty of the whole book. */
  path: string
  folders: Folder[]
  swatches: Swatch[]
}

const byName = (a: Folder, b: Folder) => a.name.localeCompare(b.name)

/** The folders that swatches name, as a tree. */
export function treeOf(swatches: Swatch[]): Folder {
  const root: Folder = { name: '', path: '', folders: [], swatches: [] }
  for (const swatch of swatches) {
    let folder = root
    for (const name of swatch.folder
      .split('/')
      .map((part) => part.trim())
      .filter(Boolean)) {
      let next = folder.folders.find((one) => one.name === name)
      if (!next) folder.folders = [...folder.folders, (next = { name, path: folder.path ? `${folder.path}/${name}` : name, folders: [], swatches: [] })].sort(byName)
      folder = next
    }
    folder.swatches.push(swatch)
  }
  return root
}

/** How many swatches a folder holds, those of its folders counted. */
export const sizeOf = (folder: Folder): number => folder.swatches.length + folder.folders.reduce((sum, one) => sum + sizeOf(one), 0)
