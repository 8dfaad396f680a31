# Completion of amber-sieve: commands, their options, then files.
_amber_sieve() {
    local word=${COMP_WORDS[COMP_CWORD]} command=${COMP_WORDS[1]}
    if [ "$COMP_CWORD" = 1 ]; then
        COMPREPLY=($(compgen -W "mask recolour render track cdl lookup batch info thumbnail explain schema controls surface open --help --version" -- "$word"))
    elif [[ $word == -* ]]; then
        COMPREPLY=($(compgen -W "$(amber-sieve "$command" --help 2>/dev/null | grep -o -- '--[a-z-]*' | sort -u)" -- "$word"))
    else
        COMPREPLY=($(compgen -f -- "$word"))
    fi
}
complete -o filenames -F _amber_sieve amber-sieve
