import { ref } from 'vue'

import { ask } from '../../api/ask'
import { api } from '../../api/client'
import type { Measured, Stream } from '../../api/types'

export interface Clip {
  name: string
  codec?: Stream['codec']
  width: number
  height: number
  measured: Measured
}

/** A day and more of frames; beyond that a clip tells nothing new. */
const most = 500_000

const codecs: Record<string, Stream['codec']> = { avc: 'h264', hevc: 'h265', av1: 'av1' }

/**
 * Reads a clip in the browser, frame by frame: when each is shown, how large it is, whether it is a keyframe. Only
 * these figures go to the server; the file itself is read in pieces and never leaves the machine.
 */
export function useClip() {
  const clip = ref<Clip>()
  const reading = ref('')
  const failure = ref('')
  let stopped = false

  async function read(file: File) {
    stopped = false
    failure.value = ''
    clip.value = undefined
    reading.value = `Reading ${file.name}…`
    try {
      const found = await frames(file)
      if (stopped) return
      const { data, problem } = await ask(api.POST('/api/streams/clip', { body: found.body }))
      if (data)
        clip.value = { name: file.name, codec: found.codec, width: found.width, height: found.height, measured: data }
      else failure.value = `${file.name}: ${problem}.`
    } catch (error) {
      if (!stopped)
        failure.value = `${file.name} cannot be read: ${error instanceof Error ? error.message : String(error)}. MP4, MKV, MOV and TS are understood.`
    } finally {
      reading.value = ''
    }
  }

  async function frames(file: File) {
    const { ALL_FORMATS, BlobSource, EncodedPacketSink, Input } = await import('mediabunny')
    const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(file) })
    try {
      const track = await input.getPrimaryVideoTrack()
      if (!track) throw new Error('there is no video in it')
      const body = { seconds: [] as number[], bytes: [] as number[], keyframes: [] as number[] }
      for await (const packet of new EncodedPacketSink(track).packets(undefined, undefined, { metadataOnly: true })) {
        if (stopped) throw new Error('stopped')
        if (packet.type === 'key') body.keyframes.push(body.bytes.length)
        body.seconds.push(packet.timestamp)
        body.bytes.push(packet.byteLength)
        if (body.bytes.length % 500 === 0)
          reading.value = `Reading ${file.name}: ${body.bytes.length} frames, ${Math.round(packet.timestamp)} s`
        if (body.bytes.length >= most) break
      }
      const codec = await track.getCodec()
      return {
        body,
        codec: codecs[codec ?? ''],
        width: await track.getCodedWidth(),
        height: await track.getCodedHeight(),
      }
    } finally {
      input.dispose()
    }
  }

  function stop() {
    stopped = true
    reading.value = ''
  }

  return { clip, reading, failure, read, stop }
}
