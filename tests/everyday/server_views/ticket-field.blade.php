@props(['name', 'label' => '', 'type' => 'text', 'value' => '', 'required' => false, 'hint' => null])

<div class="field">
    <label for="{{ $name }}">{{ $label ?: ucfirst($name) }}@if ($required)<span class="star">*</span>@endif</label>
    <input id="{{ $name }}" name="{{ $name }}" type="{{ $type }}" value="{{ $value }}" {{ $required ? 'required' : '' }}
        @if ($hint) aria-describedby="{{ $name }}-hint" @endif>
    @if ($hint)
        <p class="hint" id="{{ $name }}-hint">{{ $hint }}</p>
    @endif
    @error($name)
        <p class="error">{{ $message }}</p>
    @enderror
</div>
