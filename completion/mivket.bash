# Made from the commands themselves: `npm run generate`.
_mivket() {
  local current=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD - 1]}
  COMPREPLY=()
  if [[ $COMP_CWORD -eq 1 ]]; then
    COMPREPLY=($(compgen -W 'audit mend compare watch judge check-live explain demo doctor init' -- "$current"))
    return
  fi
  case ${COMP_WORDS[1]} in
    audit)
      case $before in
        --insert) COMPREPLY=($(compgen -W 'inline late frame shadow' -- "$current")); return ;;
        --format) COMPREPLY=($(compgen -W 'text json jsonl sarif junit markdown csv reply' -- "$current")); return ;;
        --only) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --skip) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --hold-on) COMPREPLY=($(compgen -W 'blocker concern advice' -- "$current")); return ;;
        --house) return ;;
        --browser) return ;;
        --save) return ;;
        --keep) return ;;
        --new-since) return ;;
        --write-waivers) return ;;
        --clear-to) return ;;
        --pictures) return ;;
        --record) return ;;
        --replay) return ;;
        --code) return ;;
        --slot) return ;;
        --viewport) return ;;
        --width) return ;;
        --jobs) return ;;
        --time-limit) return ;;
        --budget) return ;;
        --by) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--code --extract --house --slot --insert --viewport --width --no-ranges --offline --jobs --time-limit --browser --format --save --open --quiet --no-color --keep --only --skip --hold-on --new-since --budget --write-waivers --clear-to --by --markup-only --outage --pictures --record --replay' -- "$current"))
      fi
      ;;
    mend)
      case $before in
        --insert) COMPREPLY=($(compgen -W 'inline late frame shadow' -- "$current")); return ;;
        --only) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --skip) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --hold-on) COMPREPLY=($(compgen -W 'blocker concern advice' -- "$current")); return ;;
        --format) COMPREPLY=($(compgen -W 'text json' -- "$current")); return ;;
        --out) return ;;
        --questions) return ;;
        --answers) return ;;
        --house) return ;;
        --browser) return ;;
        --save) return ;;
        --code) return ;;
        --slot) return ;;
        --viewport) return ;;
        --width) return ;;
        --jobs) return ;;
        --time-limit) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--write --out --questions --answers --ask --code --extract --house --slot --insert --viewport --width --no-ranges --offline --jobs --time-limit --browser --only --skip --hold-on --format --save --quiet --no-color' -- "$current"))
      fi
      ;;
    compare)
      case $before in
        --insert) COMPREPLY=($(compgen -W 'inline late frame shadow' -- "$current")); return ;;
        --only) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --skip) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --hold-on) COMPREPLY=($(compgen -W 'blocker concern advice' -- "$current")); return ;;
        --format) COMPREPLY=($(compgen -W 'text json' -- "$current")); return ;;
        --house) return ;;
        --browser) return ;;
        --save) return ;;
        --code) return ;;
        --slot) return ;;
        --viewport) return ;;
        --width) return ;;
        --jobs) return ;;
        --time-limit) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--code --extract --house --slot --insert --viewport --width --no-ranges --offline --jobs --time-limit --browser --only --skip --hold-on --format --save --quiet --no-color' -- "$current"))
      fi
      ;;
    watch)
      case $before in
        --insert) COMPREPLY=($(compgen -W 'inline late frame shadow' -- "$current")); return ;;
        --only) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --skip) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --hold-on) COMPREPLY=($(compgen -W 'blocker concern advice' -- "$current")); return ;;
        --house) return ;;
        --browser) return ;;
        --code) return ;;
        --slot) return ;;
        --viewport) return ;;
        --width) return ;;
        --jobs) return ;;
        --time-limit) return ;;
        --port) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--code --extract --house --slot --insert --viewport --width --no-ranges --offline --jobs --time-limit --browser --only --skip --hold-on --port --open --no-color' -- "$current"))
      fi
      ;;
    judge)
      case $before in
        --format) COMPREPLY=($(compgen -W 'text json jsonl sarif junit markdown csv reply' -- "$current")); return ;;
        --only) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --skip) COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current")); return ;;
        --hold-on) COMPREPLY=($(compgen -W 'blocker concern advice' -- "$current")); return ;;
        --house) return ;;
        --save) return ;;
        --new-since) return ;;
        --write-waivers) return ;;
        --clear-to) return ;;
        --budget) return ;;
        --by) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--house --format --save --open --quiet --no-color --only --skip --hold-on --new-since --budget --write-waivers --clear-to --by' -- "$current"))
      fi
      ;;
    check-live)
      case $before in
        --format) COMPREPLY=($(compgen -W 'text json' -- "$current")); return ;;
        --ledger) return ;;
        --run) return ;;
        --house) return ;;
        --browser) return ;;
        --save) return ;;
        --snippet) return ;;
        --viewport) return ;;
        --width) return ;;
        --jobs) return ;;
        --time-limit) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--ledger --run --snippet --house --viewport --width --jobs --time-limit --browser --format --save --quiet --no-color' -- "$current"))
      fi
      ;;
    explain)
      case $before in

      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '' -- "$current"))
      else
        COMPREPLY=($(compgen -W 'address-carries-secret address-instead-of-code address-works-only-here alt-says-nothing alt-too-wordy asks-for-device attribute-misspelt audio-autoplays autoplay-cannot-be-stopped autoplay-despite-reduced-motion autoplay-did-not-start autoplay-on-wrong-element autoplay-value-ignored autoplay-with-sound autoplay-without-inline autoplay-without-still blocked-by-host-policy code-mangled code-shows-as-text contacts-before-consent content-cut-off content-jumps content-swallowed control-unnamed covered-by-layer covers-host-controls curly-quotes download-forced element-misspelt extra-page-heading flashes focus-taken-at-load font-not-there form-inside-form frame-autoplay-with-sound frame-border-left-on frame-cuts-content frame-fixed-size frame-granted-too-much frame-height-collapsed frame-loads-early frame-loads-late frame-mostly-empty frame-not-secure frame-only-counts frame-permission-missing frame-proportion-lost frame-refused frame-resize-unheard frame-sandbox-open frame-scrolls-sideways frame-unnamed frame-wider-than-slot heading-out-of-step host-content-damaged host-not-allowed host-private-address host-style-reaches-in id-used-twice jump-to-top-link keyboard-trapped linked-picture-unnamed media-cannot-be-started media-format-unplayable media-missing media-over-limit media-page-not-file media-size-unset media-sources-disagree media-type-mismatch media-without-captions motion-cannot-be-stopped nested-document not-secure nothing-rendered obsolete-markup off-centre outage-harms-page page-hangs page-locked page-scrolls-sideways page-settings-changed page-taken-over pasted-twice picture-blurry picture-cannot-be-stopped picture-missing picture-never-loaded picture-oversized picture-size-unset picture-squeezed picture-without-alt pictures-load-early placeholder-left-in player-address-malformed request-failed script-blocks-page script-breaks-host script-error script-idle-when-late script-loaded-twice script-loader-missing script-mostly-unused script-never-rests script-pulls-in-others script-time-over-limit script-version-floats script-weight-over-limit script-without-integrity script-writes-document scroll-caught shrunk-not-reflowed site-alters-code slot-overflow stores-on-device style-declaration-ignored style-import-too-late style-reaches-outside tag-left-open text-contrast-low text-invisible text-too-small too-small-on-phone vector-colour-lost vector-drawn-outside vector-unnamed vector-without-viewbox visitor-hindered weight-over-limit' -- "$current"))
      fi
      ;;
    demo)
      case $before in
        --format) COMPREPLY=($(compgen -W 'text json jsonl sarif junit markdown csv reply' -- "$current")); return ;;
        --save) return ;;
        --keep) return ;;
        --browser) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--format --save --open --quiet --no-color --keep --browser --serve' -- "$current"))
      fi
      ;;
    doctor)
      case $before in

        --browser) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--browser --clean --no-color' -- "$current"))
      fi
      ;;
    init)
      case $before in
        --hold-on) COMPREPLY=($(compgen -W 'blocker concern advice' -- "$current")); return ;;
        --page) return ;;
        --slot) return ;;
        --width) return ;;
        --origin) return ;;
        --language) return ;;
      esac
      if [[ $current == -* ]]; then
        COMPREPLY=($(compgen -W '--page --slot --width --origin --language --hold-on --force' -- "$current"))
      fi
      ;;
  esac
}
complete -o default -F _mivket mivket
