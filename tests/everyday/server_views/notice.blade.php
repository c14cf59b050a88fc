@props(['type' => 'info', 'title' => '', 'dismissible' => false])

<div {{ $attributes->merge(['class' => 'notice notice-' . $type, 'role' => 'status']) }}>
    @if ($title !== '')
        <h3 class="notice-title">{{ $title }}</h3>
    @endif

    <div class="notice-body">{{ $slot }}</div>

    @isset($footer)
        <footer>{{ $footer }}</footer>
    @endisset

    {{-- Closed by the page's own script --}}
    @if ($dismissible)
        <button type="button" data-dismiss="notice" aria-label="Close">&times;</button>
    @endif
</div>
