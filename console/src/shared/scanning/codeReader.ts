import { BarcodeDetector, prepareZXingModule } from 'barcode-detector/ponyfill'
import wasm from 'zxing-wasm/reader/zxing_reader.wasm?url'

// Its own build would fetch the reader from somewhere else; this one comes with the console.
prepareZXingModule({ overrides: { locateFile: (path: string, prefix: string) => (path.endsWith('.wasm') ? wasm : prefix + path) } })

/** What stands on drives and chassis: Code 128 and Code 39 (ISO/IEC 15417, 16388), Data Matrix and QR (ISO/IEC 16022, 18004). */
export const codeReader = () => new BarcodeDetector({ formats: ['code_128', 'code_39', 'data_matrix', 'qr_code'] })
