@if ($pages->hasPages())
    <nav class="pager">
        @if ($pages->onFirstPage())
            <span>Back</span>
        @else
            <a href="{{ $pages->previousPageUrl() }}" rel="prev">Back</a>
        @endif
        <span>{{ $pages->currentPage() }} / {{ $pages->lastPage() }}</span>
        @if ($pages->hasMorePages())
            <a href="{{ $pages->nextPageUrl() }}" rel="next">On</a>
        @endif
    </nav>
@endif
