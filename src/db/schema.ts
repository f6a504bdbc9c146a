import type { ColumnType, Generated, JSONColumnType } from 'kysely';
import type { Conditions, FactName, FactOrigin, FactOwner } from '../core/book/facts';
import type { LadderRung, NextStep } from '../core/book/ladder';
import type { Cell } from '../core/card/layout';
import type { Pairing } from '../core/card/contract';
import type {
  AirAssist,
  GalvoHead,
  HeadKind,
  PowerPoint,
  RampPower,
  SourceKind,
  ZeroPlace,
} from '../core/machine/machine';
import type { Outline } from '../core/stock/outline';
import type { LikedUnits } from '../core/quantities/format';
import type { Point } from '../core/geometry/point';
import type { BurnStatus, HandRecord } from '../records/burn';
import type { FinishMoment } from '../core/card/work-setup';
import type { ImageRole, PhotoDetail, PhotoStatus } from '../records/photo';

/** Row types of the tables. The constraints themselves stand in the migrations. */
type Timestamp = ColumnType<Date, never, Date>;
type GeneratedTimestamp = ColumnType<Date, never, never>;
type Json<T> = ColumnType<T, string, string>;

export interface MachineTable {
  id: Generated<number>;
  name: string;
  head: HeadKind;
  galvo: Json<GalvoHead | null>;
  zero: ZeroPlace;
  x_plus: 'right' | 'left';
  y_plus: 'away' | 'toward';
  source_kind: SourceKind;
  wavelength_nm: number;
  rated_power_w: number;
  lowest_firing_command: number;
  power_table: Json<PowerPoint[] | null>;
  bed_width_mm: number;
  bed_depth_mm: number;
  top_speed_x_mm_per_s: number;
  top_speed_y_mm_per_s: number;
  acceleration_x_mm_per_s2: number;
  acceleration_y_mm_per_s2: number;
  air_assist: AirAssist;
  automatic_focus: boolean;
  ramp_power: RampPower;
  adds_run_up: boolean;
  power_cap: number;
  liked_units: Json<LikedUnits>;
  created_at: GeneratedTimestamp;
  retired_at: ColumnType<Date | null, never, Date | null>;
}

export interface LensTable {
  id: Generated<number>;
  machine_id: number;
  name: string;
  focal_length_mm: number;
  spot_x_mm: number;
  spot_y_mm: number;
  spot_origin: 'measured' | 'computed';
  field_mm: number | null;
  created_at: GeneratedTimestamp;
  retired_at: ColumnType<Date | null, never, Date | null>;
}

export interface StockTable {
  id: Generated<number>;
  name: string;
  family: string;
  type: string;
  colour: string;
  bare_lightness: number;
  coating: string;
  coating_side: 'none' | 'top' | 'bottom' | 'both';
  adhesive_backing: boolean;
  grain: 'none' | 'along-width' | 'along-depth';
  nominal_thickness_mm: number;
  batch: string;
  sheet_width_mm: number;
  outline: Json<Outline>;
  blanks: number | null;
  sheet_depth_mm: number;
  acquired_on: ColumnType<string | null, string | null, string | null>;
  created_at: GeneratedTimestamp;
  retired_at: ColumnType<Date | null, never, Date | null>;
}

export interface ThicknessReadingTable {
  stock_id: number;
  place: number;
  thickness_mm: number;
}

export interface PairingTable {
  id: Generated<number>;
  machine_id: number;
  lens_id: number;
  stock_id: number;
  created_at: GeneratedTimestamp;
}

export interface CardTable {
  id: Generated<number>;
  /** The number its markers and code carry. */
  number: number;
  kind: string;
  pairing_id: number;
  plan: JSONColumnType<object, string, never>;
  /** As it was stored, of whatever version. */
  layout: JSONColumnType<object, string, never>;
  code: ColumnType<string, never, never>;
  adopted: ColumnType<boolean, never, never>;
  width_mm: ColumnType<number, never, never>;
  height_mm: ColumnType<number, never, never>;
  /** Machine, lens and stock as they were when the card was made. */
  made_for: JSONColumnType<Pairing & object, string, never>;
  /** Which sheet or blank of its stock it lies on, counted from 1. */
  piece: number;
  sheet_x_mm: number;
  sheet_y_mm: number;
  bed_left_mm: number;
  bed_rear_mm: number;
  estimated_s: number;
  created_at: GeneratedTimestamp;
}

/** A cell that a search added to a card after it was made. */
export interface CardCellTable {
  card_id: number;
  cell_index: number;
  cell: JSONColumnType<Cell & object, string, never>;
  why: string;
  created_at: GeneratedTimestamp;
}

export interface BurnTable {
  id: Generated<number>;
  card_id: number;
  machine_id: number;
  place: 'bench' | 'own-machine';
  status: BurnStatus;
  /** What was sent to the bench; null for a burn on the operator's own machine. */
  program: string | null;
  /** Which cells it is about; null for all of the card. */
  cells: Json<number[] | null>;
  parts: JSONColumnType<object[], string, never>;
  hands: JSONColumnType<HandRecord[], string, string>;
  lines_total: number;
  lines_done: number;
  seed: string;
  cautions: JSONColumnType<string[], string, never>;
  estimated_s: number;
  actual_s: number | null;
  started_at: GeneratedTimestamp;
  ended_at: ColumnType<Date | null, Date | null, Date | null>;
  /** What broke it off; null for burns that ended as they were meant to. */
  fault: ColumnType<string | null, never, string | null>;
}

export interface PhotoTable {
  id: Generated<number>;
  card_id: number;
  origin: 'upload' | 'bench-camera';
  file_name: string;
  media_type: string;
  byte_count: number;
  width_px: number;
  height_px: number;
  sha256: string;
  status: PhotoStatus;
  /** Why it could not be read, which cards it shows. */
  detail: Json<PhotoDetail>;
  corners: Json<Point[] | null>;
  finish: FinishMoment | null;
  revision: ColumnType<number, never, number>;
  created_at: GeneratedTimestamp;
}

export interface PhotoImageTable {
  photo_id: number;
  role: ImageRole;
  media_type: string;
  bytes: ColumnType<Buffer, Buffer, Buffer>;
}

export interface ReadingTable {
  id: Generated<number>;
  photo_id: number;
  card_id: number;
  to_photo: JSONColumnType<number[], string, never>;
  markers: number;
  frame_error_mm: number;
  photo_px_per_mm: number;
  also_seen: JSONColumnType<number[], string, never>;
  took_s: number;
  created_at: GeneratedTimestamp;
}

export interface CellReadingTable {
  reading_id: number;
  cell_index: number;
  lightness: number;
  delta_lightness: number;
  spread: number;
  line_visibility: number | null;
  edge_halo: number;
  clipped_share: number;
  edge_width_mm: number | null;
  lightness_sigma: number;
  confidence: number;
  doubts: string[];
  colour: string;
}

export interface AnswerTable {
  card_id: number;
  field: string;
  cell_index: number | null;
  repeat: number;
  word: string | null;
  number: number | null;
  updated_at: Timestamp;
}

export interface FindingTable {
  id: Generated<number>;
  card_id: number;
  kind: string;
  method_version: number;
  wish: JSONColumnType<object, string, never>;
  value: JSONColumnType<object, string, never>;
  reading_id: number | null;
  created_at: GeneratedTimestamp;
}

export interface FactTable {
  id: Generated<number>;
  name: FactName;
  owner: FactOwner;
  pairing_id: number | null;
  machine_id: number | null;
  lens_id: number | null;
  stock_id: number | null;
  at: JSONColumnType<Conditions & object, string, never>;
  at_key: string;
  created_at: GeneratedTimestamp;
}

export interface FactVersionTable {
  id: Generated<number>;
  fact_id: number;
  version: number;
  value: JSONColumnType<object, string, never>;
  sigma: number | null;
  origin: FactOrigin;
  card_id: number | null;
  cell_index: number | null;
  photo_id: number | null;
  reading_id: number | null;
  finding_id: number | null;
  made_for: JSONColumnType<Partial<Pairing> & object, string, never>;
  note: string;
  created_at: GeneratedTimestamp;
}

/** What a pairing's ladder showed when it was last worked out. `revision` is moved on by triggers. */
export interface PairingStateTable {
  pairing_id: number;
  revision: number;
  kept_revision: number;
  ladder: Json<LadderRung[] | null>;
  next: Json<NextStep | null>;
  waits: number;
  changed_at: Timestamp;
}

export interface SubmissionTable {
  key: string;
  action: string;
  result: JSONColumnType<object, string, never>;
  created_at: GeneratedTimestamp;
}

export interface FavouriteTable {
  id: Generated<number>;
  name: string;
  kind: string;
  plan: JSONColumnType<object, string, never>;
  created_at: GeneratedTimestamp;
}

export interface Database {
  favourite: FavouriteTable;
  machine: MachineTable;
  lens: LensTable;
  stock: StockTable;
  thickness_reading: ThicknessReadingTable;
  pairing: PairingTable;
  card: CardTable;
  burn: BurnTable;
  photo: PhotoTable;
  photo_image: PhotoImageTable;
  reading: ReadingTable;
  cell_reading: CellReadingTable;
  card_cell: CardCellTable;
  answer: AnswerTable;
  finding: FindingTable;
  fact: FactTable;
  fact_version: FactVersionTable;
  pairing_state: PairingStateTable;
  submission: SubmissionTable;
}
