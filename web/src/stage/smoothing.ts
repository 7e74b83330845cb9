import {
  Mesh,
  NearestFilter,
  OrthographicCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  Vector2,
  WebGLRenderTarget,
  type WebGLRenderer,
} from 'three'

/** samples to a pixel of a smooth picture */
const SAMPLES = 4
/** ms without a newer picture after which a rough one is drawn smooth */
export const AT_REST = 300
/** the same while something is dragged: a smooth picture takes the time that the next figures need */
export const HELD_STILL = 1200

/** Whether pictures are drawn without a graphics processor: then smooth ones take several times as long as rough ones. */
export function drawsInSoftware(gl: WebGLRenderer): boolean {
  const context = gl.getContext()
  const info = context.getExtension('WEBGL_debug_renderer_info')
  const name = info ? String(context.getParameter(info.UNMASKED_RENDERER_WEBGL)) : ''
  return /llvmpipe|softpipe|swiftshader|software|basic render/i.test(name)
}

/** A place beside the canvas where a picture is drawn smooth, and brought to the canvas then. */
export class Smoothing {
  private readonly target = new WebGLRenderTarget(1, 1, {
    samples: SAMPLES,
    minFilter: NearestFilter,
    magFilter: NearestFilter,
  })
  private readonly size = new Vector2()
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1)
  private readonly sheet = new Scene()
  private readonly material = new ShaderMaterial({
    uniforms: { picture: { value: this.target.texture } },
    vertexShader: 'void main() { gl_Position = vec4(position.xy, 0.0, 1.0); }',
    fragmentShader:
      'uniform sampler2D picture; void main() { gl_FragColor = texelFetch(picture, ivec2(gl_FragCoord.xy), 0); }',
    depthTest: false,
    depthWrite: false,
  })

  constructor() {
    const quad = new Mesh(new PlaneGeometry(2, 2), this.material)
    quad.frustumCulled = false
    this.sheet.add(quad)
  }

  /** What is drawn next goes to the same part as on the canvas: px from its lower left corner, and px to a pixel. */
  aim(gl: WebGLRenderer, [x, y, width, height]: readonly [number, number, number, number]): void {
    gl.getDrawingBufferSize(this.size)
    if (this.target.width !== this.size.x || this.target.height !== this.size.y)
      this.target.setSize(this.size.x, this.size.y)
    const dpr = gl.getPixelRatio()
    const part = [x, y, width, height].map((n) => Math.floor(n * dpr)) as [number, number, number, number]
    this.target.viewport.set(...part)
    this.target.scissor.set(...part)
    this.target.scissorTest = true
    gl.setRenderTarget(this.target)
  }

  /** Brings what was drawn to the canvas. */
  show(gl: WebGLRenderer, width: number, height: number): void {
    gl.setRenderTarget(null)
    gl.setViewport(0, 0, width, height)
    gl.setScissorTest(false)
    gl.render(this.sheet, this.camera)
    gl.setScissorTest(true)
  }

  dispose(): void {
    this.target.dispose()
    this.material.dispose()
  }
}
