# frozen_string_literal: true

require "uri"

module Server
  # A cut list that names what an order wrote instead of the sources: per shot the files of one format, or the one file of
  # the whole cut. Speeds are in the pictures by then, and so are transitions of the whole cut, and of shots where
  # the order baked them in.
  class ReturnedList
    # @param order [Order]
    # @param format [String, nil] of the outputs that are named; nil: the first one's
    # @raise [Mordant::ParameterError] of an order that has no such output
    def initialize(order, format = nil)
      @order, @cut = order, order.cut
      @outputs = order.outputs.select { |output| output.kind == (format || order.outputs.first&.kind) && output.status != "cancelled" }
      raise Mordant::ParameterError.new(path: "format", expected: order.outputs.map(&:kind).uniq.join(", "), found: format) if @outputs.empty?
    end

    # @return [String] OpenTimelineIO
    def otio = Mordant::Cut::OpenTimeline.write(written, name: @cut.name)

    # @return [String] CMX 3600
    def edl = Mordant::Cut::EDL.write(CutList.title(@cut), written)

    private

    # A shot that nothing was written of is black.
    #
    # @return [Array<Mordant::Cut::Written>]
    def written
      whole = @outputs.find { |one| one.shot_id.nil? }
      by_shot = @outputs.index_by(&:shot_id)
      rows = @cut.loaded_shots.map do |shot|
        output = whole || by_shot[shot.id]
        next black(shot) unless output

        stretch = Stretch.new(@order, output.shot_id)
        Mordant::Cut::Written.new(reel: whole ? nil : shot.clip.reel, name: File.basename(output.path), url: CutList.url(output.path), source_in: stretch.start + (whole ? shot.record_in : stretch.handle), available: [stretch.start, stretch.length],
          length: shot.length, record_in: @cut.timecode(shot.record_in), dissolve: (whole || @order.baked) ? 0 : shot.dissolve, wipe: shot.wipe, metadata: {"mordant" => {"source" => File.basename(shot.clip.path)}})
      end
      held(rows, whole)
    end

    # Transitions as far as the handles go that were written; else the list could not be laid over its files.
    def held(rows, whole)
      return rows if whole

      [nil, *rows].each_cons(2).map do |before, row|
        next row if row.dissolve.zero? || before.nil?

        most = before.black ? row.dissolve : [before.available[0].frames + before.available[1] - before.source_in.frames - before.length, 0].max
        (row.dissolve <= most) ? row : row.dup.tap { |one| one.dissolve = most }
      end
    end

    def black(shot) = Mordant::Cut::Written.new(source_in: Mordant::Cut::Timecode.new(0, @cut.project.rate), length: shot.length, record_in: @cut.timecode(shot.record_in), dissolve: shot.dissolve, wipe: shot.wipe, black: true)
  end
end
