# frozen_string_literal: true

require "digest"

module Server
  # Timelines of cuts, made once for many requests. One is known by a digest of all that it is made of, which the
  # database makes of the rows as they are now, so that none that is out of date can be found.
  class Timelines
    MOST = 16 # cuts; a long one takes about two megabytes
    PLACES = {key: "shots.id", name: "shots.name", clip: "shots.clip_id", source_in: "shots.source_in", record_in: "shots.record_in", length: "shots.length", dissolve: "shots.dissolve",
              clip_frames: "clips.frames", speed: "shots.speed", phase: "shots.phase", wipe: "shots.wipe", clock: "shots.clock", manner: "shots.manner"}.freeze
    ROWS = "COALESCE(json_agg(json_build_array(#{PLACES.values.join(", ")}) ORDER BY shots.position)::text, '[]')"
    FROM = "FROM shots JOIN clips ON clips.id = shots.clip_id WHERE shots.position IS NOT NULL AND shots.cut_id = $1"
    private_constant :PLACES, :ROWS, :FROM

    def self.current = (@current ||= new)

    def initialize
      @made = {}
      @turn = Mutex.new
    end

    # @param cut [Cut]
    # @return [Mordant::Cut::Timeline] of its shots as they are stored
    # @raise [Mordant::ParameterError] see Mordant::Cut::Timeline
    def of(cut)
      digest = ask(cut, "md5(#{ROWS})")
      known = @turn.synchronize { @made.delete(digest)&.tap { |timeline| @made[digest] = timeline } }
      return known if known

      rows = ask(cut, ROWS)
      keep(Digest::MD5.hexdigest(rows), Mordant::Cut::Timeline.new(JSON.parse(rows).map { |values| place(PLACES.keys.zip(values).to_h) }))
    end

    private

    def ask(cut, what) = Shot.connection.select_value("SELECT #{what} #{FROM}", "Timeline", [cut.id])

    # JSON writes 1.0 as 1.
    def place(values) = Mordant::Cut::Timeline::Shot.new(**values, speed: values[:speed].to_f, phase: values[:phase].to_f)

    # Those that were asked for longest ago go.
    def keep(digest, timeline)
      @turn.synchronize do
        @made[digest] = timeline
        @made.shift while @made.size > MOST
      end
      timeline
    end
  end
end
