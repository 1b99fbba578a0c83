import { parquetMetadata, parquetRead } from 'hyparquet'
import { ByteWriter, parquetWrite } from 'hyparquet-writer'
import { CLASSES, classIndex, type TargetClass } from '../../core/targets/classes.ts'
import {
  countTens,
  emptyColumns,
  type Reported,
  type Stay,
  type TensCount
} from '../../core/lookBack/rows.ts'

/**
 * The file of a closed hour: Parquet, a row for each target and instant, which any data tool reads
 * (docs/detections.md, *Files*). When the camera was listened to, and how many targets there were, stands beside the rows
 * in the footer, so that the strip of many days is read without them.
 *
 * Source of the format: Apache Parquet, parquet.thrift.
 */
const COLUMNS = ['time', 'target', 'class', 'left', 'top', 'width', 'height', 'likelihood'] as const
const HEARD = 'wardoptic.heard'
const TENS = 'wardoptic.tens'
const FORMAT = 'wardoptic-hour/1'

export function writeHour({ rows, heard }: Reported): Uint8Array {
  const writer = new ByteWriter()
  // With a writer in memory there is nothing to wait for.
  void parquetWrite({
    writer,
    schema: [
      { name: 'root', num_children: COLUMNS.length },
      {
        name: 'time',
        type: 'INT64',
        converted_type: 'TIMESTAMP_MILLIS',
        repetition_type: 'REQUIRED'
      },
      { name: 'target', type: 'INT32', repetition_type: 'REQUIRED' },
      { name: 'class', type: 'BYTE_ARRAY', converted_type: 'UTF8', repetition_type: 'REQUIRED' },
      ...COLUMNS.slice(3).map((name) => ({
        name,
        type: 'FLOAT' as const,
        repetition_type: 'REQUIRED' as const
      }))
    ],
    columnData: [
      {
        name: 'time',
        data: BigInt64Array.from(rows.at, (at) => BigInt(Math.round(at))),
        encoding: 'DELTA_BINARY_PACKED'
      },
      { name: 'target', data: rows.target },
      { name: 'class', data: Array.from(rows.cls, (cls) => CLASSES[cls]!) },
      { name: 'left', data: rows.x, encoding: 'BYTE_STREAM_SPLIT' },
      { name: 'top', data: rows.y, encoding: 'BYTE_STREAM_SPLIT' },
      { name: 'width', data: rows.w, encoding: 'BYTE_STREAM_SPLIT' },
      { name: 'height', data: rows.h, encoding: 'BYTE_STREAM_SPLIT' },
      { name: 'likelihood', data: rows.likelihood }
    ],
    statistics: true,
    rowGroupSize: 1_000_000,
    createdBy: FORMAT,
    kvMetadata: [
      { key: HEARD, value: JSON.stringify(heard) },
      { key: TENS, value: JSON.stringify([...countTens(rows)]) }
    ]
  })
  return new Uint8Array(writer.getBuffer())
}

/** What the footer of an hour's file says beside its rows. */
export interface HourFooter {
  heard: Stay[]
  tens: TensCount
  rows: number
}

const bufferOf = (bytes: Uint8Array): ArrayBuffer =>
  bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer

/** @param bytes the whole file, or its end from before the footer on @throws Error for what is no such file */
export function readFooter(bytes: Uint8Array): HourFooter {
  const { key_value_metadata: pairs = [], num_rows } = parquetMetadata(bufferOf(bytes))
  const value = (key: string): unknown =>
    JSON.parse(pairs.find((pair) => pair.key === key)?.value ?? '[]')
  return {
    heard: value(HEARD) as Stay[],
    tens: new Map(value(TENS) as [number, number[]][]),
    rows: Number(num_rows)
  }
}

/** @throws Error for what is no such file */
export async function readHour(bytes: Uint8Array): Promise<Reported> {
  const file = bufferOf(bytes)
  const { heard, rows: count } = readFooter(bytes)
  const rows = emptyColumns(count)
  const columns: Record<string, Float64Array | Int32Array | Float32Array> = {
    time: rows.at,
    target: rows.target,
    left: rows.x,
    top: rows.y,
    width: rows.w,
    height: rows.h,
    likelihood: rows.likelihood
  }
  if (count > 0)
    await parquetRead({
      file,
      // As a number: a date for each of a million rows would cost more than all else.
      parsers: { timestampFromMilliseconds: (ms: bigint) => Number(ms) as never },
      onChunk: ({ columnName, columnData, rowStart }) => {
        if (columnName !== 'class')
          return columns[columnName]?.set(columnData as unknown as ArrayLike<number>, rowStart)
        const names = columnData as unknown as ArrayLike<TargetClass>
        for (let i = 0; i < names.length; i++) rows.cls[rowStart + i] = classIndex(names[i]!)
      }
    })
  return { rows, heard }
}
