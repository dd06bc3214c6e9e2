/**
 * Forty-two systems with values worked out by mpmath 1.3 with 60 digits: step responses by the exponential of a companion
 * matrix that has the step put in, crossovers by polyroots (behind a delay by bracketing on a grid). Rounded coefficients
 * are taken as the doubles that they are. Where there is no value, the sentence stands in the test.
 */
export interface KnownSystem {
  readonly name: string
  readonly line: string
  readonly times: readonly number[]
  /** At these times; `null` of an improper system. */
  readonly step: readonly number[] | null
  /** The phase margin nearest 0 in radians, and its frequency. */
  readonly phase: readonly [margin: number, at: number] | null
  /** The smallest gain margin above 1, and its frequency. */
  readonly gain: readonly [margin: number, at: number] | null
}

export const KNOWN_SYSTEMS: readonly KnownSystem[] = [
  {
    name: 'first order',
    line: 'G = 1/(s + 1)',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.09516258196404043, 0.5034146962085905, 0.8646647167633873, 0.9975212478233336],
    phase: null,
    gain: null,
  },
  {
    name: 'slow first order',
    line: 'G = 3/(1000s + 1)',
    times: [100.0, 700.0, 2000.0, 6000.0],
    step: [0.2854877458921213, 1.5102440886257715, 2.593994150290162, 2.9925637434700008],
    phase: [1.9106332362490186, 0.00282842712474619],
    gain: null,
  },
  {
    name: 'double real pole',
    line: 'G = 4/(s + 2)^2',
    times: [0.05, 0.35, 1.0, 3.0],
    step: [0.00467884016044447, 0.15580498355460382, 0.5939941502901619, 0.9826487347633355],
    phase: null,
    gain: null,
  },
  {
    name: 'triple real pole',
    line: 'G = 1/(s + 1)^3',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.00015465307026467167, 0.03414158412570849, 0.32332358381693654, 0.938031195583341],
    phase: null,
    gain: [8.0, 1.7320508075688772],
  },
  {
    name: 'six equal poles',
    line: 'G = 64/(s + 2)^6',
    times: [0.05, 0.35, 1.0, 3.0],
    step: [1.2748986922297919e-9, 9.002634888450562e-5, 0.016563608480614438, 0.5543203586353888],
    phase: null,
    gain: [2.3703703703703702, 1.1547005383792515],
  },
  {
    name: 'oscillating pair',
    line: 'G = 25/(s^2 + 2s + 25)',
    times: [0.02, 0.14, 0.4, 1.2],
    step: [0.004929895405473264, 0.21483409877469437, 1.127484445062084, 0.7472930220643332],
    phase: [0.5735131044230968, 6.782329983125268],
    gain: null,
  },
  {
    name: 'lightly damped pair',
    line: 'G = 100/(s^2 + 0.2s + 100)',
    times: [0.01, 0.07, 0.2, 0.6],
    step: [0.004992506385118763, 0.23407332947396012, 1.39890366871709, 0.09845894407215598],
    phase: [0.0282852141413664, 14.140721339450828],
    gain: null,
  },
  {
    name: 'double pair',
    line: 'G = 25/(s^2 + 2s + 5)^2',
    times: [0.0447, 0.313, 0.894, 2.68],
    step: [4.010599237936134e-6, 0.007595747782033133, 0.26803929528901416, 1.2555296186335656],
    phase: [-0.4027158415806616, 2.449489742783178],
    gain: null,
  },
  {
    name: 'pair and real pole',
    line: 'G = 50/((s + 10)*(s^2 + 2s + 5))',
    times: [0.0447, 0.313, 0.894, 2.68],
    step: [0.0006527148271169845, 0.11206344108727807, 0.7775221826141244, 1.002885013785823],
    phase: [1.1774625685276046, 2.4007548465205013],
    gain: [5.0, 5.0],
  },
  {
    name: 'zero to the right',
    line: 'G = 2*(1 - s)/((s + 1)*(s + 2))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [-0.16315741290989272, -0.24655032334081864, 0.5136057837197517, 0.9901034239303945],
    phase: null,
    gain: [1.5, 2.23606797749979],
  },
  {
    name: 'two zeros to the right',
    line: 'G = (s - 1)*(s - 2)/((s + 1)*(s + 2)*(s + 3))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.061811528754286214, -0.08502888856786271, 0.02895880970034581, 0.3259338913108551],
    phase: null,
    gain: [3.216990566028302, 1.1614767763132823],
  },
  {
    name: 'slow zero',
    line: 'G = 6*(10s + 1)/((s + 1)*(s + 2)*(s + 3))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.24668576129576067, 3.903012677032963, 3.681945043854019, 1.0665765303352646],
    phase: [0.7817560916480966, 7.280109889280518],
    gain: null,
  },
  {
    name: 'straight through',
    line: 'G = (2s + 1)/(s + 4)',
    times: [0.025, 0.175, 0.5, 1.5],
    step: [1.8334654815629292, 1.1190242816349667, 0.4868367456640722, 0.25433781630916613],
    phase: [-2.300523983021863, 2.23606797749979],
    gain: null,
  },
  {
    name: 'all-pass',
    line: 'G = (1 - s)/(1 + s)',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [-0.8096748360719191, 0.006829392417180926, 0.7293294335267746, 0.9950424956466672],
    phase: null,
    gain: [1.0, Infinity],
  },
  {
    name: 'stiff, six decades',
    line: 'G = 1e6/((s + 1)*(s + 1e6))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.09516167712571756, 0.5034141996227901, 0.8646645814279688, 0.997521245344579],
    phase: null,
    gain: null,
  },
  {
    name: 'stiff, nine decades',
    line: 'G = 1/((1000s + 1)*(1e-6*s + 1))',
    times: [100.0, 700.0, 2000.0, 6000.0],
    step: [0.09516258105920301, 0.5034146957120051, 0.864664716628052, 0.9975212478208549],
    phase: null,
    gain: null,
  },
  {
    name: 'fast pair beside a slow pole',
    line: 'G = 1e8/((s + 1)*(s^2 + 100s + 1e8))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.09516113764702659, 0.503414204588653, 0.8646645827813243, 0.9975212453693666],
    phase: null,
    gain: [100.000101, 10000.00499999875],
  },
  {
    name: 'poles at 1 and 1.0001',
    line: 'G = 1.0001/((s + 1)*(s + 1.0001))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.00467929257764543, 0.1558171496106704, 0.594021215542429, 0.9826531956250365],
    phase: null,
    gain: null,
  },
  {
    name: 'three poles a billionth apart',
    line: 'G = (1 + 1e-9)*(1 + 2e-9)/((s + 1)*(s + 1 + 1e-9)*(s + 1 + 2e-9))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.0001546530707170904, 0.03414158421087287, 0.3233235843582777, 0.9380311958510463],
    phase: null,
    gain: [8.0, 1.7320508093009281],
  },
  {
    name: 'four poles a thousandth apart',
    line: 'G = 1/((s + 1)*(s + 1.001)*(s + 1.002)*(s + 1.003))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [3.8463738891147185e-6, 0.005748746629465291, 0.1425610350798901, 0.844520278878383],
    phase: null,
    gain: [4.02404903901, 1.0014993759359014],
  },
  {
    name: 'twenty poles',
    line: 'G = factorial(20)/product(s + k for k = 1 to 20)',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [3.709576547604667e-21, 1.0927424021742205e-6, 0.05457010043109233, 0.9515751761003051],
    phase: null,
    gain: [1.758271054389641, 0.9386875485957019],
  },
  {
    name: 'twenty poles in one decade',
    line: 'G = 2^20*factorial(20)/product(2s + k for k = 1 to 20)',
    times: [0.2, 1.4, 4.0, 12.0],
    step: [3.889772937981111e-15, 1.1458234571022354, 57220.89762963307, 997798.8918545535],
    phase: [-2.907663691157363, 6.256857391905213],
    gain: [397.0086063162125, 9.64993887093084],
  },
  {
    name: 'ten equal poles',
    line: 'G = 1/(0.1s + 1)^10',
    times: [0.01, 0.07, 0.2, 0.6],
    step: [2.5163478067703154e-17, 4.126701493558145e-9, 4.649807501726383e-5, 0.08392401699487581],
    phase: null,
    gain: [1.6517212057694755, 3.249196962329063],
  },
  {
    name: 'integrator',
    line: 'G = 2/(s*(s + 4))',
    times: [0.025, 0.175, 0.5, 1.5],
    step: [0.0006046772544949467, 0.024573162973926185, 0.14191691040457657, 0.6253098440220833],
    phase: [1.447377617096212, 0.4961967868047123],
    gain: null,
  },
  {
    name: 'double integrator',
    line: 'G = 1/s^2',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.005000000000000001, 0.24499999999999997, 2.0, 18.0],
    phase: [0.0, 1.0],
    gain: null,
  },
  {
    name: 'double integrator with lead',
    line: 'G = 3*(2s + 1)/s^2',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.615, 4.935, 18.0, 90.0],
    phase: [1.4879390218708173, 6.0206550798808145],
    gain: null,
  },
  {
    name: 'unstable pole',
    line: 'G = 2/(s - 1)',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.21034183615129526, 2.027505414940953, 12.7781121978613, 804.8575869854702],
    phase: [1.0471975511965979, 1.7320508075688772],
    gain: null,
  },
  {
    name: 'unstable pair',
    line: 'G = 4/(s^2 - s + 4)',
    times: [0.05, 0.35, 1.0, 3.0],
    step: [0.005080135871203552, 0.26492279377774763, 1.9871295241762914, -3.5160630048070587],
    phase: [-0.7227342478134157, 2.6457513110645907],
    gain: null,
  },
  {
    name: 'oscillator',
    line: 'G = 9/(s^2 + 9)',
    times: [0.0333, 0.233, 0.667, 2.0],
    step: [0.004985856355347013, 0.23451397755670528, 1.4170559257490176, 0.03982971334963398],
    phase: [0.0, 4.242640687119285],
    gain: null,
  },
  {
    name: 'conditionally stable',
    line: 'G = 40*(s + 1)^2/(s^3*(s + 10))',
    times: [0.01, 0.07, 0.2, 0.6],
    step: [0.0019479901103175684, 0.08254230509508337, 0.5251819651019959, 3.1328031157052396],
    phase: [0.6989328317191212, 3.956950693017333],
    gain: null,
  },
  {
    name: 'zero gain at rest',
    line: 'G = 5s/(s^2 + 3s + 2)',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.4305333247898886, 1.249941699249015, 0.5850982217393925, 0.01236303982156515],
    phase: [-2.214297435588181, 0.4494897427831781],
    gain: null,
  },
  {
    name: 'zero gain twice',
    line: 'G = s^2/(s + 1)^3',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.08595955471341617, 0.22594631322509134, -1.2436084152981474e-69, -0.029745026119996302],
    phase: null,
    gain: null,
  },
  {
    name: 'improper',
    line: 'G = (s^2 + 1)/(s + 1)',
    times: [0.1, 0.7, 2.0, 6.0],
    step: null,
    phase: [-1.0471975511965979, 1.7320508075688772],
    gain: null,
  },
  {
    name: 'negative gain',
    line: 'G = -3/((s + 1)*(s + 3))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [-0.013152983286919575, -0.31635025843937664, -0.7982364512334141, -0.9962818793499904],
    phase: null,
    gain: [1.0, 0.0],
  },
  {
    name: 'rounded pair',
    line: 'G = 1/(s^2 + sqrt(2)*s + 1)',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.004768463045194067, 0.17401657575852697, 0.72194504699796, 1.0193176818927134],
    phase: null,
    gain: null,
  },
  {
    name: 'rounded, third order',
    line: 'G = pi/(s^3 + sqrt(2)*s^2 + pi*s + pi)',
    times: [0.0895, 0.626, 1.79, 5.37],
    step: [0.0003633340093978873, 0.09798135789662413, 1.0234559973468302, 0.9928631946924371],
    phase: [-0.6120419781949341, 2.0098853617917873],
    gain: null,
  },
  {
    name: 'rounded double pole',
    line: 'G = 2/(s + sqrt(2))^2',
    times: [0.0707, 0.495, 1.41, 4.24],
    step: [0.004677473845627065, 0.15581739796551514, 0.592378854912338, 0.9825931069190191],
    phase: null,
    gain: null,
  },
  {
    name: 'filter of order five',
    line: 'G = 1/((s + 1)*(s^2 + (sqrt(5) - 1)/2*s + 1)*(s^2 + (sqrt(5) + 1)/2*s + 1))',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [7.894139497555146e-8, 0.000950229155980918, 0.08303451836665952, 1.1207642931620825],
    phase: null,
    gain: [1.0899874007331862, 0.8461211238112353],
  },
  {
    name: 'motor',
    line: 'G = 0.05/((0.01*s + 0.1)*(0.5*s + 1) + 0.0025)',
    times: [0.0485, 0.339, 0.969, 2.91],
    step: [0.009738729173052236, 0.186306035864515, 0.40441976205732183, 0.4862839886258081],
    phase: null,
    gain: null,
  },
  {
    name: 'behind a delay',
    line: 'G = 2/(s + 1)*e^(-0.5s)',
    times: [0.1, 0.7, 2.0, 6.0],
    step: [0.0, 0.3625384938440362, 1.5537396797031404, 1.991826457123072],
    phase: [1.2283696986087569, 1.7320508075688772],
    gain: [1.9034414324129363, 3.6731944063042516],
  },
  {
    name: 'integrator behind a delay',
    line: 'G = 0.8/(s*(s + 2))*e^(-s)',
    times: [0.05, 0.35, 1.0, 3.0],
    step: [0.0, 0.0, 0.0, 0.6036631277777469],
    phase: [0.9844908683266242, 0.39251232191334023],
    gain: [3.0576328768107857, 1.0768739863118038],
  },
  {
    name: 'slow lag behind a long delay',
    line: 'G = 5/(10s + 1)*e^(-4s)',
    times: [1.0, 7.0, 20.0, 60.0],
    step: [0.0, 1.2959088965914107, 3.990517410026723, 4.981510681417586],
    phase: [-0.18743754664131507, 0.4898979485566356],
    gain: [3.957328306615727, 1.9761355802640477],
  },
]

/** Figures of step responses: by mpmath with 40 digits, from extremes and crossings bracketed on a fine grid. */
export const KNOWN_FIGURES: readonly {
  readonly line: string
  readonly rise: number | null
  readonly settling: number
  readonly overshoot: number | null
  readonly undershoot: number | null
  readonly peak: number
  readonly peakAt: number | null
  readonly final: number
}[] = [
  { line: 'G = 1/(s + 1)', rise: 2.1972245773362196, settling: 3.912023005428146, overshoot: 0.0, undershoot: 0.0, peak: 1.0, peakAt: null, final: 1.0 }, // prettier-ignore
  { line: 'G = 4/(s + 2)^2', rise: 1.6789542807389086, settling: 2.9169608509586955, overshoot: 0.0, undershoot: 0.0, peak: 1.0, peakAt: null, final: 1.0 }, // prettier-ignore
  { line: 'G = 25/(s^2 + 2s + 25)', rise: 0.24068598018506512, settling: 3.9203807460874764, overshoot: 0.526620599330303, undershoot: 0.0, peak: 1.526620599330303, peakAt: 0.641274915080932, final: 1.0 }, // prettier-ignore
  { line: 'G = 100/(s^2 + 0.2s + 100)', rise: 0.1027494972874596, settling: 38.97568844339444, overshoot: 0.969070903976423, undershoot: 0.0, peak: 1.9690709039764231, peakAt: 0.3141749745004427, final: 1.0 }, // prettier-ignore
  { line: 'G = 50/((s + 10)*(s^2 + 2s + 5))', rise: 0.714366054015393, settling: 3.83424461768948, overshoot: 0.20212451720587146, undershoot: 0.0, peak: 1.2021245172058714, peakAt: 1.6801308291250496, final: 1.0 }, // prettier-ignore
  { line: 'G = 2*(1 - s)/((s + 1)*(s + 2))', rise: 2.4199398123997815, settling: 5.294546095267536, overshoot: 0.0, undershoot: 0.3333333333333333, peak: 1.0, peakAt: null, final: 1.0 }, // prettier-ignore
  { line: 'G = (s - 1)*(s - 2)/((s + 1)*(s + 2)*(s + 3))', rise: 4.436851859716597, settling: 6.104778798683163, overshoot: 0.0, undershoot: 0.3739387691339814, peak: 0.3333333333333333, peakAt: null, final: 0.3333333333333333 }, // prettier-ignore
  { line: 'G = 6*(10s + 1)/((s + 1)*(s + 2)*(s + 3))', rise: 0.1517833459919857, settling: 7.206292997532916, overshoot: 3.756242568370987, undershoot: 0.0, peak: 4.756242568370987, peakAt: 1.1700712526502546, final: 1.0 }, // prettier-ignore
  { line: 'G = (2s + 1)/(s + 4)', rise: 0.5493061443340549, settling: 0.9780057513570365, overshoot: 0.0, undershoot: 0.0, peak: 0.25, peakAt: null, final: 0.25 }, // prettier-ignore
  { line: 'G = (1 - s)/(1 + s)', rise: 2.1972245773362196, settling: 3.912023005428146, overshoot: 0.0, undershoot: 0.0, peak: 1.0, peakAt: null, final: 1.0 }, // prettier-ignore
  { line: 'G = 1e6/((s + 1)*(s + 1e6))', rise: 2.1972245773362196, settling: 3.912024005428646, overshoot: 0.0, undershoot: 0.0, peak: 1.0, peakAt: null, final: 1.0 }, // prettier-ignore
  { line: 'G = 1e8/((s + 1)*(s^2 + 100s + 1e8))', rise: 2.1972251007662535, settling: 3.912023995428636, overshoot: 0.0, undershoot: 0.0, peak: 1.0, peakAt: null, final: 1.0 }, // prettier-ignore
]
