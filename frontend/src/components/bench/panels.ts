// What unfolds under each line of the docket.

import type { Component } from 'vue'

import BorderStep from './border/BorderStep.vue'
import CropStep from './crop/CropStep.vue'
import CutOutStep from './cutout/CutOutStep.vue'
import ExportStep from './export/ExportStep.vue'
import PiecesStep from './pieces/PiecesStep.vue'
import SpotsStep from './spots/SpotsStep.vue'
import ToneStep from './tone/ToneStep.vue'
import TreatmentsStep from './treatments/TreatmentsStep.vue'
import WatermarkStep from './watermark/WatermarkStep.vue'

export const PANELS: Record<string, Component> = {
  crop: CropStep,
  spots: SpotsStep,
  tone: ToneStep,
  cut_out: CutOutStep,
  treatments: TreatmentsStep,
  border: BorderStep,
  pieces: PiecesStep,
  watermark: WatermarkStep,
  export: ExportStep,
}
