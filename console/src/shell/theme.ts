import { Button, createTheme, type MantineColorsTuple } from '@mantine/core'

// docs/look.md says why; shade 8 is pine by day, shade 3 by night.
const pine: MantineColorsTuple = [
  '#e6f5ef',
  '#cdeadf',
  '#a6dcc8',
  '#7fd1b4',
  '#52b896',
  '#2f9a7a',
  '#1d7f65',
  '#136a55',
  '#0e5a49',
  '#08463a',
]

export const theme = createTheme({
  primaryColor: 'pine',
  primaryShade: { light: 8, dark: 3 },
  colors: { pine },
  fontFamily: '"Atkinson Hyperlegible Next", system-ui, sans-serif',
  fontFamilyMonospace: '"Atkinson Hyperlegible Mono", ui-monospace, monospace',
  defaultRadius: 3,
  headings: { fontWeight: '700' },
  fontSizes: { xs: '13px', sm: '15px', md: '17px', lg: '20px', xl: '22px' },
  spacing: { xs: '4px', sm: '8px', md: '12px', lg: '20px', xl: '32px' },
  components: {
    Button: Button.extend({
      defaultProps: { size: 'md' },
      // Text on pine is not white by night, when pine is light.
      vars: (_theme, props) => ({
        root: { '--button-color': !props.variant || props.variant === 'filled' ? 'var(--on-pine)' : undefined },
      }),
      styles: {
        root: { minHeight: 48, height: 'auto', paddingBlock: 8, display: 'inline-flex', alignItems: 'center', justifyContent: 'center' },
        label: { whiteSpace: 'normal', overflow: 'visible', lineHeight: 1.3 },
      },
    }),
    TextInput: { defaultProps: { size: 'md' } },
    NativeSelect: { defaultProps: { size: 'md' } },
    PasswordInput: { defaultProps: { size: 'md' } },
    Textarea: { defaultProps: { size: 'md', autosize: true, minRows: 2 } },
  },
})
